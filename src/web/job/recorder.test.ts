/** @jest-environment jsdom */
import 'fake-indexeddb/auto';
import { renderHook, waitFor } from '@testing-library/react';
import type { NewEntry } from '../../contract';
import { idOf, readingOf } from '../../testing/fixtures';
import { setBench } from '../api/bench';
import type { SeenShop } from '../api/resources';
import { readWaiting } from '../api/waiting';
import { useRecorder } from './recorder';

const edda = idOf('edda');
const shop = {
  technicians: [{ id: edda, name: 'Edda Vinterhal', initials: 'EV' }],
  clockAheadMs: 3_600_000,
} as unknown as SeenShop;
const reading = readingOf('restVoltageV', 1.31);
const sent: { path: string; entry: NewEntry }[] = [];

beforeEach(() => {
  sent.length = 0;
  globalThis.fetch = ((path: string, { body }: RequestInit) => {
    const entry = JSON.parse(body as string) as NewEntry;
    sent.push({ path, entry });
    return Promise.resolve({
      ok: true,
      status: 201,
      headers: new Headers({ 'content-type': 'application/json' }),
      text: () => Promise.resolve(JSON.stringify(entry)),
      json: () => Promise.resolve(entry),
    });
  }) as unknown as typeof fetch;
});

it('nobody at the bench: nothing is recorded, and the caller hears of it', async () => {
  setBench({ technicianId: null });
  const { result } = renderHook(() => useRecorder(shop));
  expect(await result.current(idOf('job'), 'check.reading', reading)).toBeNull();
  expect(readWaiting().entries).toEqual([]);
  expect(sent).toEqual([]);
});

it('somebody whom this shop does not know records nothing', async () => {
  setBench({ technicianId: idOf('somebody of another shop') });
  const { result } = renderHook(() => useRecorder(shop));
  expect(await result.current(idOf('job'), 'check.reading', reading)).toBeNull();
  expect(sent).toEqual([]);
});

it('an entry says who, at which bench, and when by the clock of the shop', async () => {
  setBench({ technicianId: edda, name: 'window bench' });
  const { result } = renderHook(() => useRecorder(shop));
  const before = Date.now();
  const id = await result.current(idOf('job'), 'check.reading', reading, {
    well: 'alarm',
    supersedes: [idOf('first')],
  });
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]).toMatchObject({
    path: `/api/jobs/${idOf('job')}/entries`,
    entry: {
      id,
      kind: 'check.reading',
      payload: reading,
      well: 'alarm',
      supersedes: [idOf('first')],
      technicianId: edda,
      bench: 'window bench',
    },
  });
  const aheadMs = Date.parse(sent[0]?.entry.occurredAt ?? '') - before;
  expect(aheadMs).toBeGreaterThanOrEqual(3_600_000);
  expect(aheadMs).toBeLessThan(3_660_000);
});
