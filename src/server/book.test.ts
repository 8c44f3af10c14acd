import fc from 'fast-check';
import {
  type BookLine,
  CATALOGUE_TABLES,
  type ImportNews,
  type ImportReport,
  type Problem,
  type ShopResource,
} from '../contract';
import { holdRecords, openBook, type RecordChange } from '../core/craft/book';
import { DEFAULT_POLICY } from '../core/craft/policy';
import { Counter, technicianId } from '../testing/counter';
import { book, idOf } from '../testing/fixtures';
import { readTable, tableCsv } from './catalogue/tables';

let counter: Counter;
beforeEach(async () => {
  counter = await Counter.open();
});
afterEach(() => counter.close());

const table = (name: string) => {
  const found = CATALOGUE_TABLES.find((each) => each.name === name);
  if (!found) throw new Error(name);
  return found;
};

async function send(
  name: string,
  csv: string,
  dryRun: 'yes' | 'no',
): Promise<{ news: ImportNews[]; report: ImportReport }> {
  const response = await fetch(
    `${counter.url}/api/catalogue/tables/${name}?technicianId=${technicianId}&dryRun=${dryRun}`,
    { method: 'POST', headers: { 'content-type': 'text/csv' }, body: csv },
  );
  const news = (await response.text())
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as ImportNews);
  const last = news.at(-1);
  if (!last || !('report' in last)) throw new Error(JSON.stringify(news));
  return { news, report: last.report };
}

const bookNow = () => counter.store.catalogue.book();

/** The columns of a case whose back nobody measured. */
const BARE = 'id,maker_id,code,back_kind,rating_bar,crown_clock,lip_clock,gasket';

describe('what changed in the book', () => {
  async function changes(since = 0, mark = '') {
    const query = new URLSearchParams({ since: String(since), mark }).toString();
    const response = await fetch(`${counter.url}/api/catalogue/changes?${query}`);
    const lines = (await response.text()).trim().split('\n');
    const [head, ...rest] = lines.map((line) => JSON.parse(line) as BookLine);
    const count = rest.pop();
    if (!head || !('since' in head) || !count || !('count' in count)) throw new Error(lines.join());
    const records = rest as readonly RecordChange[];
    expect(count.count).toBe(records.length);
    return { head, records };
  }
  const orrelin = () => {
    const maker = bookNow().maker('orrelin');
    if (!maker) throw new Error('no maker');
    return maker;
  };

  it('is everything for who holds nothing, and with what they hold it is the book of today', async () => {
    const first = await changes();
    expect(first.head).toMatchObject({ since: 0, revision: bookNow().revision });
    const held = holdRecords();
    held.take(first.records);
    expect(held.catalogue(first.head.revision)).toEqual((await counter.get('/api/catalogue')).body);
    counter.store.catalogue.write('maker', [{ ...orrelin(), name: 'Orrelin & Co' }]);
    const removed = bookNow().gaskets[0];
    if (!removed) throw new Error('no ring');
    const [{ revision: basedOn }] = (
      await counter.get<[{ revision: number }]>(`/api/catalogue/gasket/${removed.id}/history`)
    ).body;
    counter.store.catalogue.revise({
      kind: 'gasket',
      id: removed.id,
      body: removed,
      removed: true,
      basedOn,
      technicianId,
    });
    const next = await changes(first.head.revision, first.head.mark);
    expect(next.head.since).toBe(first.head.revision);
    expect(next.records.map(({ kind, id, body }) => [kind, id, body === null])).toEqual([
      ['maker', 'orrelin', false],
      ['gasket', removed.id, true],
    ]);
    held.take(next.records);
    expect(held.catalogue(next.head.revision)).toEqual((await counter.get('/api/catalogue')).body);
    expect((await changes(next.head.revision, next.head.mark)).records).toEqual([]);
  });

  it('is everything where the book was another one at that revision', async () => {
    const { head, records } = await changes();
    for (const [since, mark] of [
      [head.revision, 'of another book'],
      [head.revision + 1, head.mark],
      [1, head.mark],
    ] as const) {
      const again = await changes(since, mark);
      expect([again.head.since, again.records.length]).toEqual([0, records.length]);
    }
    expect((await counter.get('/api/catalogue/changes?since=-1')).status).toBe(400);
    expect((await counter.get('/api/catalogue/changes?since=x')).status).toBe(400);
  });

  it('is not what was rolled back, though it was read within', () => {
    const before = bookNow();
    expect(() =>
      counter.store.inOne(() => {
        counter.store.catalogue.write('maker', [{ ...orrelin(), name: 'Never written' }]);
        expect(bookNow().maker('orrelin')?.name).toBe('Never written');
        throw new Error('rolled back');
      }),
    ).toThrow('rolled back');
    expect(bookNow()).toBe(before);
    counter.store.catalogue.write('maker', [{ ...orrelin(), name: 'Written' }]);
    expect(bookNow().maker('orrelin')?.name).toBe('Written');
    expect(bookNow().makers).toHaveLength(before.makers.length);
  });
});

describe('a table of the book as CSV', () => {
  it.each(CATALOGUE_TABLES.map((each) => [each.name] as const))(
    '%s goes out and comes in again, and changes nothing',
    async (name) => {
      const { body } = await counter.get<string>(`/api/catalogue/tables/${name}.csv`);
      const before = bookNow().revision;
      const { report } = await send(name, body, 'no');
      expect(report).toMatchObject({ added: 0, changed: 0, errors: [], applied: true });
      expect(report.same).toBeGreaterThan(0);
      expect(bookNow().revision).toBe(before);
    },
  );

  it('a dry run says what would change and changes nothing; the import changes it', async () => {
    const csv = tableCsv(table('calibres'), bookNow()).replace('OR 41.2', 'OR 41.3');
    const dry = await send('calibres', csv, 'yes');
    expect(dry.report).toMatchObject({
      changed: 1,
      changes: [{ id: 'orrelin-41-2', fields: ['code'] }],
      applied: false,
    });
    expect(bookNow().calibre('orrelin-41-2')?.code).toBe('OR 41.2');
    const real = await send('calibres', csv, 'no');
    expect(real.report).toMatchObject({ changed: 1, applied: true });
    expect(bookNow().calibre('orrelin-41-2')?.code).toBe('OR 41.3');
    expect(bookNow().calibre('orrelin-41-2')?.wells).toEqual(book.calibre('orrelin-41-2')?.wells);
    expect((await counter.get(`/api/catalogue/calibre/orrelin-41-2/history`)).body).toMatchObject([
      { body: { code: 'OR 41.3' }, technicianId },
      { body: { code: 'OR 41.2' } },
    ]);
  });

  it('takes a new calibre in two files: itself, then its places for cells', async () => {
    const head = table('calibres').columns.map((column) => column.name);
    const own: Record<string, string> = {
      id: 'orrelin-99-1',
      maker_id: 'orrelin',
      code: 'OR 99.1',
      shape: 'round',
      width_mm: '20,5',
      length_mm: '20.5',
      height_mm: '3',
      functions: 'hands | seconds hand',
      step_interval_s: '1',
      typical_ua: '1',
      limit_ua: '1.5',
      lowest_v: '1.2',
      date_quick_set: 'no',
    };
    const csv = `${head.join(',')}\r\n${head.map((name) => `"${own[name] ?? ''}"`).join(',')}\r\n`;
    expect((await send('calibres', csv, 'no')).report).toMatchObject({ added: 1, errors: [] });
    expect(bookNow().calibre('orrelin-99-1')).toMatchObject({ widthMm: 20.5, wells: [], charge: null });
    const wells =
      'of,name,x_mm,y_mm,cell_code,other_heights_mm,face_up,held_by,push_degrees\norrelin-99-1,main,3,2,364,,+,side lever,90\n';
    expect((await send('wells', wells, 'no')).report).toMatchObject({ changed: 1, errors: [] });
    expect(bookNow().calibre('orrelin-99-1')?.wells).toMatchObject([
      { cellCode: '364', heldBy: 'side lever' },
    ]);
  });

  it('with errors changes nothing and lists every bad line with its number and reason', async () => {
    const lines = [
      BARE,
      ...[
        'new-1,orrelin,C9999-1,snap-on,3,3,,',
        'new-2,nobody,C9999-2,snap-on,3,3,,',
        'new-3,orrelin,C9999-3,welded,3,3,,',
        'new-4,orrelin,C9999-4,snap-on,three,3,,',
        'new-5,orrelin,C99"99-5,snap-on,3,3,,',
        'new-6,orrelin,C9999-6,snap-on,3',
        'New 7,orrelin,C9999-7,snap-on,3,14,,',
        'new-1,orrelin,C9999-8,snap-on,3,3,,',
      ],
    ];
    const before = bookNow().revision;
    const { report } = await send('case-types', lines.join('\n'), 'no');
    expect(report).toMatchObject({ applied: false });
    expect(report.errors.map(({ line, column }) => [line, column])).toEqual([
      [3, 'maker_id'],
      [4, 'back_kind'],
      [5, 'rating_bar'],
      [6, null],
      [7, null],
      [8, 'id'],
      [8, 'crown_clock'],
      [9, 'id'],
    ]);
    expect(report.errors.find(({ line }) => line === 6)?.reason).toContain('quotation mark');
    for (const { reason } of report.errors) expect(reason.length).toBeGreaterThan(15);
    expect(bookNow().revision).toBe(before);
  });

  it('names the columns that are missing or unknown, and an unclosed quote', async () => {
    const wrong = await send('makers', 'id,title\norrelin,Orrelin\n', 'no');
    expect(wrong.report.errors[0]?.reason).toBe('Columns missing: name. Not columns of this table: title.');
    const open = await send('makers', 'id,name\norrelin,"Orrelin\ntasvik,Tasvik\n', 'no');
    expect(open.report).toMatchObject({ applied: false });
    expect(open.report.errors[0]?.reason).toContain('quotation mark');
  });

  it('takes a file written before backs were measured, and leaves the measures as they are', async () => {
    const old =
      'id,maker_id,code,back_kind,rating_bar,crown_clock,lip_clock,gasket\nk61-08,pellorane,K61/08,"screwed, notched",10,4,,28.2 × 0.80\nk99-01,pellorane,K99/01,snap-on,,3,6,\n';
    const { report } = await send('case-types', old, 'no');
    expect(report).toMatchObject({ added: 1, changed: 1, errors: [], applied: true });
    expect(bookNow().caseType('k61-08')).toMatchObject({
      ratingBar: 10,
      back: { notchCount: 8, pitchMm: 32.2 },
    });
    expect(bookNow().caseType('k99-01')).toMatchObject({ lipClock: 6, back: null });
  });

  it('refuses a table nobody knows, and one that is no CSV', async () => {
    expect((await counter.get('/api/catalogue/tables/nothing.csv')).status).toBe(404);
    expect(
      (await counter.post(`/api/catalogue/tables/makers?technicianId=${technicianId}&dryRun=no`, {})).status,
    ).toBe(400);
  });

  it('reads ten thousand lines and says on the way how far it is', async () => {
    const rows = Array.from(
      { length: 10_000 },
      (_, index) => `c${index},orrelin,C${String(index).padStart(5, '0')},snap-on,3,3,,`,
    );
    const { news, report } = await send('case-types', [BARE, ...rows].join('\n'), 'no');
    expect(report).toMatchObject({ lines: 10_000, added: 10_000, errors: [], applied: true });
    const answer = news.flatMap((each) => ('progress' in each ? [each.progress.done] : []));
    expect(answer.length).toBeGreaterThan(10);
    expect(answer).toEqual([...answer].sort((a, b) => a - b));
    expect(bookNow().caseTypes.length).toBeGreaterThan(10_000);
  });

  it('never throws, whatever the file holds', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...CATALOGUE_TABLES),
        fc.string({ maxLength: 300 }),
        async (any, csv) => {
          const reading = readTable(any, csv, openBook(book));
          let step = await reading.next();
          while (!step.done) step = await reading.next();
          return step.value.bodies.length === 0 || step.value.report.errors.length === 0;
        },
      ),
    );
  });
});

describe('a record of the book', () => {
  const [calibre] = book.calibres;
  const write = (change: object, more: object = {}) =>
    counter.post<Problem & { revision: number }>('/api/catalogue/records', {
      kind: 'calibre',
      id: calibre?.id,
      body: { ...calibre, ...change },
      basedOn: counter.store.catalogue.history('calibre', calibre?.id ?? '')[0]?.revision ?? null,
      technicianId,
      ...more,
    });

  it('is corrected as a new revision, with who did it', async () => {
    expect((await write({ limitUA: 1.9 })).status).toBe(201);
    expect(bookNow().calibre(calibre?.id ?? null)?.limitUA).toBe(1.9);
    expect((await write({ limitUA: 2.1 }, { basedOn: 1 })).status).toBe(409);
    expect(counter.store.catalogue.history('calibre', calibre?.id ?? '')).toMatchObject([
      { body: { limitUA: 1.9 }, technicianId },
      { body: { limitUA: calibre?.limitUA }, technicianId: null },
    ]);
  });

  it.each([
    [{ limitUA: 0.1 }, 'is under what is typical'],
    [{ makerId: 'nobody' }, 'not in the book'],
    [{ wells: [{ ...calibre?.wells[0], cellCode: 'XX99' }] }, 'not in the table'],
    [{ coilMaxKOhm: null }, 'both ends'],
    [{ widthMm: 6 }, 'outside the movement'],
  ])('is refused with %p: it does not fit the rest', async (change, words) => {
    expect(await write(change)).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining(words) as string },
    });
  });

  it('is refused where it contradicts itself, field by field', async () => {
    const { status, body } = await write({ widthMm: 'wide', shape: 'square' });
    expect(status).toBe(400);
    expect(body.fields?.map((field) => field.path)).toEqual(['shape', 'widthMm']);
  });

  it('leaves the book only when nothing names it any more', async () => {
    expect((await write({}, { removed: true })).status).toBe(201);
    expect(bookNow().calibre(calibre?.id ?? null)).toBeNull();
    const maker = book.maker('orrelin');
    const refused = await counter.post<Problem>('/api/catalogue/records', {
      kind: 'maker',
      id: 'orrelin',
      body: maker,
      removed: true,
      basedOn: counter.store.catalogue.history('maker', 'orrelin')[0]?.revision,
      technicianId,
    });
    expect(refused).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('Still named by') as string },
    });
  });
});

describe('the policy', () => {
  const { revision: _, ...policy } = DEFAULT_POLICY;
  const decide = (change: object, more: object = {}) =>
    counter.post<Problem>('/api/policy', {
      shop: { name: 'Test counter', place: '', zone: 'Europe/Lisbon' },
      policy: { ...policy, ...change },
      basedOn: counter.store.shops.policy().revision,
      technicianId,
      ...more,
    });

  it('is a new revision, and what it says holds at once', async () => {
    const services = {
      ...policy.services,
      'cell only': { requires: ['arrive.watch', 'arrive.wear'], priceMinor: 1700 },
    };
    expect((await decide({ services, provingRunHours: 8 })).status).toBe(201);
    const { body } = await counter.get<ShopResource>('/api/shop');
    expect(body.policy).toMatchObject({
      revision: 2,
      provingRunHours: 8,
      services: { 'cell only': { priceMinor: 1700 } },
    });
    expect((await counter.get('/api/policy/revisions')).body).toMatchObject([
      { revision: 2, technicianId },
      { revision: 1 },
    ]);
    expect((await decide({}, { basedOn: 1 })).status).toBe(409);
  });

  it.each([
    [
      {
        services: {
          ...policy.services,
          diagnose: { requires: ['open.back', 'arrive.watch'], priceMinor: 0 },
        },
      },
      'closed again',
    ],
    [{ hours: { ...policy.hours, Monday: { from: '18:00', to: '09:00' } } }, 'after opening'],
    [{ schools: { ...policy.schools, gasket: 'never' } }, 'gasket: one of'],
    [{ extras: [...policy.extras, policy.extras[0]] }, 'each thing once'],
    [{ currency: 'euro' }, 'three letters'],
  ])('is refused with %p', async (change, words) => {
    expect(await decide(change)).toMatchObject({
      status: 400,
      body: { detail: expect.stringContaining(words) as string },
    });
  });

  it('is refused in a zone that is nowhere', async () => {
    const shop = { name: 'Test counter', place: '', zone: 'Europe/Nowhere' };
    expect(await decide({}, { shop })).toMatchObject({
      status: 400,
      body: { detail: expect.stringContaining('time zones') as string },
    });
    expect((await decide({}, { technicianId: idOf('nobody') })).status).toBe(422);
  });
});
