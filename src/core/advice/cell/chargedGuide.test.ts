import { book, context, takenIn } from '../../../testing/fixtures';
import { guidesOf } from './cellOfJob';

const stepsOf = (calibreId: string) => {
  const guide = [
    ...guidesOf(
      takenIn('recharge or new accumulator', calibreId).state(),
      book,
      context.policy.schools,
    ).values(),
  ][0];
  if (!guide) throw new Error(`No guide for ${calibreId}.`);
  return guide.steps;
};
const idsOf = (calibreId: string): string[] => stepsOf(calibreId).map(({ id }) => id);
const inOrder = (ids: readonly string[], ...wanted: readonly string[]): boolean => {
  const places = wanted.map((each) => ids.indexOf(each));
  return places.every((place, i) => place >= 0 && (i === 0 || place > (places[i - 1] ?? 0)));
};

describe('the guide of an accumulator', () => {
  it('by light: tabs noted, out of their slots, level, into their slots again', () => {
    const ids = idsOf('vessarin-210s');
    expect(
      inOrder(
        ids,
        'out-charged-slots',
        'out-unscrew',
        'out-charged-tabs',
        'out-charged-accumulator',
        'in-charged-level',
        'in-charged-slots-in',
        'in-screw',
        'in-charged-touch',
        'after-runs',
      ),
    ).toBe(true);
    expect(ids.join(' ')).not.toContain('rotor');
  });

  it('by rotor: rotor and wheel off first and on last, the wheel dropping by itself', () => {
    const ids = idsOf('vessarin-330r');
    expect(
      inOrder(
        ids,
        'out-charged-rotor',
        'out-charged-wheel',
        'out-unscrew',
        'out-charged-pegs',
        'out-charged-accumulator',
        'in-charged-level',
        'in-charged-pegs-in',
        'in-screw',
        'in-charged-wheel-in',
        'in-charged-rotor-in',
        'in-charged-free',
      ),
    ).toBe(true);
    const wheel = stepsOf('vessarin-330r').find(({ id }) => id === 'in-charged-wheel-in');
    expect(wheel?.how).toContain('drops by itself');
    expect(wheel?.danger).toContain('Pressing breaks');
  });

  it.each(['vessarin-210s', 'vessarin-330r'])(
    'of %s lays every part on the tray, and takes each back once',
    (id) => {
      const steps = stepsOf(id);
      const laid = steps.filter(({ off }) => off.length > 0).map((step) => step.id);
      const back = steps.flatMap((step) => step.back ?? []);
      expect([...back].sort()).toEqual([...laid].sort());
      const parts = steps.flatMap(({ off }) => off.map(({ part }) => part));
      expect(parts).toContain('accumulator');
      expect(parts).toEqual(
        expect.arrayContaining(id === 'vessarin-210s' ? ['tab'] : ['rotor', 'wheel', 'insulator']),
      );
    },
  );

  it.each(['vessarin-210s', 'vessarin-330r'])(
    'of %s is no guide for a cell: nothing is said to run before it was charged',
    (id) => {
      const said = stepsOf(id)
        .map(({ what, how, danger }) => `${what} ${how} ${danger ?? ''}`)
        .join(' ');
      expect(said).toContain('nearly empty');
      expect(said).toContain('is charged by the watch');
      expect(said).not.toMatch(/fresh cell|Lay the cell|Take the cell|bridge and cell/);
      expect(stepsOf(id).filter(({ what }) => /accumulator (out|level)/i.test(what))).toHaveLength(2);
    },
  );
});
