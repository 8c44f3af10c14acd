import fc from 'fast-check';
import { book } from '../../../testing/fixtures';
import type { Maker } from '../movements';
import { holdRecords, type RecordChange } from './held';

const maker = (id: string, name: string) => ({ ...book.makers[0], id, name }) as Maker;

describe('the records of a book as they are held', () => {
  const histories = fc.array(
    fc.record({ id: fc.constantFrom('a', 'b', 'c', 'd'), name: fc.string(), removed: fc.boolean() }),
    { maxLength: 30 },
  );
  const changesOf = (history: readonly { id: string; name: string; removed: boolean }[]): RecordChange[] =>
    history.map(({ id, name, removed }, at) => ({
      revision: at + 1,
      kind: 'maker',
      id,
      body: removed ? null : maker(id, name),
    }));

  it('are the same whether they are taken at once or in parts', () => {
    fc.assert(
      fc.property(histories, fc.nat(30), (history, cut) => {
        const changes = changesOf(history);
        const [whole, parts] = [holdRecords(), holdRecords()];
        whole.take(changes);
        parts.take(changes.slice(0, cut));
        const later = holdRecords();
        later.take(parts.all());
        later.take(changes.slice(cut));
        expect(later.catalogue(9)).toEqual(whole.catalogue(9));
      }),
    );
  });

  it('hold each record as it was written last, in the order of that, and none that was removed', () => {
    const held = holdRecords();
    held.take(
      changesOf([
        { id: 'a', name: 'first', removed: false },
        { id: 'b', name: 'second', removed: false },
        { id: 'c', name: 'third', removed: false },
        { id: 'a', name: 'renamed', removed: false },
        { id: 'b', name: '', removed: true },
      ]),
    );
    expect(held.catalogue(5).makers.map(({ id, name }) => [id, name])).toEqual([
      ['c', 'third'],
      ['a', 'renamed'],
    ]);
    expect([...held.all()].map(({ revision }) => revision)).toEqual([3, 4]);
  });
});
