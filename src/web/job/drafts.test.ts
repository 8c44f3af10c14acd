/** @jest-environment jsdom */
import { act, renderHook } from '@testing-library/react';
import { useDrafts } from './drafts';

const gasket = { findings: ['flattened'], ageYears: 4, meetsWater: true } as const;

it('writing what stands there already draws nothing anew', () => {
  const { result } = renderHook(useDrafts);
  act(() => result.current.setDraft('gasket', { ...gasket, findings: [...gasket.findings] }));
  const before = result.current.draft;
  act(() => result.current.setDraft('gasket', { ...gasket, findings: [...gasket.findings] }));
  expect(result.current.draft).toBe(before);
});

it('keeps one well apart from the other, and adds to what was typed for it', () => {
  const { result } = renderHook(useDrafts);
  act(() => result.current.setWellDraft('main', { found: '371' }));
  act(() => result.current.setWellDraft('alarm', { found: '364' }));
  act(() => result.current.setWellDraft('main', { lotId: 'n-204' }));
  expect(result.current.draft.wells).toEqual({
    main: { found: '371', lotId: 'n-204' },
    alarm: { found: '364' },
  });
});

it('two fields written in the same moment both stay', () => {
  const { result } = renderHook(useDrafts);
  act(() => {
    result.current.setDraft('gasket', gasket);
    result.current.setWellDraft('', { found: '371' });
  });
  expect(result.current.draft).toMatchObject({ gasket, wells: { '': { found: '371' } } });
});

it('a form that is closed takes its draft with it and no other', () => {
  const { result } = renderHook(useDrafts);
  act(() => result.current.setDraft('gasket', gasket));
  act(() => result.current.setDraft('groove', { insideMm: 28, depthMm: null, widthMm: null } as never));
  act(() => result.current.setDraft('groove', null));
  expect(result.current.draft).toMatchObject({ gasket, groove: null });
});
