import fc from 'fast-check';
import { type OwnerRevision, sameDetails, activeRevisions } from './owner';

const revision = (id: string, ...supersedes: string[]): OwnerRevision => ({
  id,
  name: id,
  phone: '',
  email: '',
  supersedes,
  technicianId: null,
  recordedAt: '2026-03-17T10:00:00.000Z',
});
const active = (...revisions: OwnerRevision[]): string[] => activeRevisions(revisions).map(({ id }) => id);

describe('which of an owner’s revisions stand', () => {
  it.each([
    ['one', [revision('a')], ['a']],
    ['one in the place of another', [revision('a'), revision('b', 'a')], ['b']],
    ['two in the place of the same', [revision('a'), revision('b', 'a'), revision('c', 'a')], ['b', 'c']],
    [
      'a third in the place of both',
      [revision('a'), revision('b', 'a'), revision('c', 'a'), revision('d', 'b', 'c')],
      ['d'],
    ],
    ['one that names itself or a later one', [revision('a', 'a', 'b'), revision('b')], ['a', 'b']],
    ['none', [], []],
  ])('%s', (_, revisions, expected) => {
    expect(active(...revisions)).toEqual(expected);
  });

  it('always one of them, the last among them, whatever they name', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.nat(9), { maxLength: 3 }), { minLength: 1, maxLength: 10 }),
        (named) => {
          const revisions = named.map((of, index) => revision(String(index), ...of.map(String)));
          expect(activeRevisions(revisions).at(-1)?.id).toBe(String(named.length - 1));
        },
      ),
    );
  });

  it('says the same where name, phone and e-mail do', () => {
    expect(sameDetails(revision('a'), { ...revision('b'), name: 'a' })).toBe(true);
    for (const field of ['name', 'phone', 'email'])
      expect(sameDetails(revision('a'), { ...revision('a'), [field]: 'x' })).toBe(false);
  });
});
