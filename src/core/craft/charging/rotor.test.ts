import fc from 'fast-check';
import { rotorPlan } from './rotor';

const net = { perHourWornH: 12, perThousandTurnsH: 10, figuresAre: 'net of its running' } as const;
const hoursOf = (plan: ReturnType<typeof rotorPlan>, mark: string) =>
  plan.marks.find((each) => each.mark === mark);

describe('charging by the rotor', () => {
  it('takes the hours of running by what an hour gains', () => {
    const plan = rotorPlan(net, 90, 0, 0.5, 900);
    expect(hoursOf(plan, 'full')).toMatchObject({ wornH: 180 });
    expect(hoursOf(plan, 'hand back')).toMatchObject({ wornH: 90, turns: 108_000, winderH: 120 });
    expect(hoursOf(plan, 'holds a day')?.wornH).toBeCloseTo(2, 9);
    expect(hoursOf(rotorPlan(net, 90, 40, 0.5, 900), 'hand back')?.wornH).toBeCloseTo(18, 9);
    expect(hoursOf(rotorPlan(net, 90, 80, 0.5, 900), 'hand back')).toMatchObject({ wornH: 0 });
  });

  it('takes off what it uses meanwhile where the figures are gross', () => {
    const gross = rotorPlan({ ...net, figuresAre: 'gross' }, 90, 0, 0.5, 900);
    expect(hoursOf(gross, 'full')?.wornH).toBeCloseTo((90 * 24) / 11, 9);
    const lazy = rotorPlan(
      { perHourWornH: 1, perThousandTurnsH: null, figuresAre: 'gross' },
      90,
      0,
      0.5,
      900,
    );
    expect(lazy).toMatchObject({ verdict: 'never full' });
    expect(lazy.reasons.join(' ')).toContain('uses as much as it gains');
  });

  it('asks for figures the book does not have, and refuses what cannot be', () => {
    expect(rotorPlan(null, 90, 0, 0.5, 900).verdict).toBe('not known');
    expect(rotorPlan({ ...net, perHourWornH: null, perThousandTurnsH: null }, 90, 0, 0.5, 900).verdict).toBe(
      'not known',
    );
    expect(rotorPlan(net, 0, 0, 0.5, 900).verdict).toBe('not known');
    for (const percent of [-1, 101, NaN])
      expect(rotorPlan(net, 90, percent, 0.5, 900).verdict).toBe('refused');
    expect(rotorPlan(net, 90, 0, 0.5, 0).verdict).toBe('refused');
  });

  it('is never slower for more turns', () => {
    const turns = fc.integer({ min: 1, max: 5000 });
    fc.assert(
      fc.property(turns, turns, (a, b) => {
        const at = (each: number): number =>
          hoursOf(rotorPlan(net, 90, 0, 0.5, each), 'full')?.winderH ?? Infinity;
        return at(Math.max(a, b)) <= at(Math.min(a, b));
      }),
    );
  });
});
