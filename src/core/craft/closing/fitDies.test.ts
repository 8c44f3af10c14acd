import fc from 'fast-check';
import type { Holder, PressDie } from '../tools';
import { fitDies, NO_PRESS_MEASURES, pressContradictions, type PressMeasures } from './fitDies';

const hollow = (innerMm: number, change: Partial<PressDie> = {}): PressDie => ({
  id: `hollow-${innerMm}-${change.material ?? 'plastic'}-${change.shank ?? 'P6'}`,
  name: `ring die ${innerMm}`,
  costMinor: 600,
  innerMm,
  outerMm: innerMm + 4,
  recessMm: 3,
  material: 'plastic',
  shank: 'P6',
  ...change,
});
const flat = (outerMm: number, change: Partial<PressDie> = {}): PressDie => ({
  ...hollow(outerMm),
  id: `flat-${outerMm}-${change.material ?? 'plastic'}-${change.shank ?? 'P6'}`,
  name: `flat die ${outerMm}`,
  innerMm: null,
  outerMm,
  recessMm: 0,
  ...change,
});
const press = (shank = 'P6'): Holder => ({
  id: `press-${shank}`,
  name: `hand press ${shank}`,
  costMinor: 4000,
  holds: 'dies',
  shank,
  fromMm: null,
  toMm: null,
});
const measures: PressMeasures = {
  ...NO_PRESS_MEASURES,
  crystalMm: 27.5,
  bezelMm: 31,
  crystalAboveMm: 0.4,
  caseMm: 34,
  backMm: 32.8,
  backBulgeMm: 0,
};
const dies = [hollow(24), hollow(28), hollow(29), hollow(32), flat(24), flat(27), flat(30), flat(33)];
const ask = (
  change: Partial<PressMeasures> = {},
  pressDies: readonly PressDie[] = dies,
  holders = [press()],
) => fitDies({ pressed: 'back', measures: { ...measures, ...change }, tools: { pressDies, holders } });

describe('dies for a press', () => {
  it('are the smallest over the crystal and the largest on the back', () => {
    const fit = ask();
    expect(fit.verdict).toBe('press');
    expect(fit.crystalSide?.die.name).toBe('ring die 28');
    expect(fit.backSide?.die.name).toBe('flat die 30');
    expect(fit.stack).toEqual(['ring die 28', 'film', 'crystal', 'case', 'back', 'flat die 30']);
  });

  it('turn over where the case opens from the front', () => {
    const fit = fitDies({ pressed: 'bezel', measures, tools: { pressDies: dies, holders: [press()] } });
    expect(fit.stack).toEqual(['flat die 30', 'back', 'case', 'crystal', 'film', 'ring die 28']);
  });

  it('take plastic before metal where both are as large', () => {
    const fit = ask({}, [
      hollow(28, { material: 'metal' }),
      hollow(28),
      flat(30, { material: 'metal' }),
      flat(30),
    ]);
    expect([fit.crystalSide?.die.material, fit.backSide?.die.material]).toEqual(['plastic', 'plastic']);
  });

  it('stand in one press: a shank apart is no pair', () => {
    const fit = ask({}, [hollow(28), flat(30, { shank: 'R8' })], [press(), press('R8')]);
    expect(fit.verdict).toBe('no die');
    expect(fit.reasons.join(' ')).toContain('has a shank that fits');
    expect(ask({}, dies, []).verdict).toBe('no die');
    // A smaller die whose press is missing gives way to one that has it.
    expect(ask({}, [hollow(28, { shank: 'R8' }), hollow(29), flat(30)]).crystalSide?.die.innerMm).toBe(29);
  });

  it('leave a glass in the back alone: hollow over it, never flat', () => {
    const back = { glassMm: 22, glassAboveMm: 0.2, backBulgeMm: null };
    // The one of 28 lies over the crystal already.
    expect(ask(back).backSide?.die.name).toBe('ring die 24');
    const none = ask(back, [hollow(28), flat(30)]);
    expect(none.verdict).toBe('no die');
    expect(none.reasons.at(-1)).toContain('thumbs at the rim');
  });

  it('never serve both sides with one die', () => {
    const curved = { backBulgeMm: 0.6, backMm: 33 };
    expect(ask(curved, [hollow(28)]).verdict).toBe('no die');
    expect(ask(curved, [hollow(28), hollow(28, { material: 'metal' })]).verdict).toBe('press');
  });

  it('that nearly fit are told with what they fail by, and not advised', () => {
    const fit = ask({}, [hollow(24), flat(33)]);
    expect(fit.verdict).toBe('no die');
    expect(fit.stack).toEqual([]);
    expect(fit.reasons.join(' ')).toContain('inside, clear of the crystal 24 mm, 27.8 mm wanted, 3.8 mm out');
    expect(fit.reasons.join(' ')).toContain(
      'outside, inside the rim of the back 33 mm, 32.4 mm wanted, 0.6 mm out',
    );
  });

  it('cannot be where the bezel is hardly wider than its crystal', () => {
    expect(ask({ bezelMm: 28.5 }).reasons[0]).toContain('only 1 mm wider');
    // At 1.3 mm exactly there is one size left.
    expect(ask({ bezelMm: 28.8, crystalMm: 27.5 }, [hollow(27.8, { outerMm: 32 }), flat(30)]).verdict).toBe(
      'press',
    );
  });

  it('wait for every measure they go by, and name them', () => {
    for (const name of ['crystalMm', 'bezelMm', 'crystalAboveMm', 'caseMm', 'backMm', 'backBulgeMm'] as const)
      expect(ask({ [name]: null })).toMatchObject({ verdict: 'not yet known', crystalSide: null, stack: [] });
    expect(ask({ glassMm: 20, glassAboveMm: null }).reasons[0]).toContain('glass');
  });

  it('go by no measures that contradict each other', () => {
    expect(ask({ crystalMm: 31.5 })).toMatchObject({ verdict: 'measures disagree', stack: [] });
    expect(pressContradictions({ ...measures, backMm: 35 })[0]).toMatchObject({ path: 'backMm' });
    expect(pressContradictions({ ...measures, glassMm: 33 })[0]).toMatchObject({ path: 'glassMm' });
    expect(pressContradictions(measures)).toEqual([]);
  });
});

describe('whatever the board and the watch', () => {
  const length = (min: number, max: number) =>
    fc.integer({ min: min * 10, max: max * 10 }).map((tenths) => tenths / 10);
  const anyDie = fc
    .record({
      inner: fc.option(length(16, 36)),
      outer: length(16, 42),
      recess: length(0, 4),
      plastic: fc.boolean(),
      shank: fc.constantFrom('P6', 'R8'),
    })
    .filter(({ inner, outer }) => inner === null || inner < outer);
  const anyWatch = fc
    .record({
      crystal: length(20, 30),
      rim: length(0.5, 5),
      above: length(-1, 2),
      ring: length(0, 4),
      lip: length(0, 2),
      bulge: length(0, 1),
    })
    .map(({ crystal, rim, above, ring, lip, bulge }): PressMeasures => ({
      ...NO_PRESS_MEASURES,
      crystalMm: crystal,
      bezelMm: crystal + rim,
      crystalAboveMm: above,
      caseMm: crystal + rim + ring,
      backMm: crystal + rim + ring - lip > 0 ? crystal + rim + ring - Math.min(lip, ring) : crystal,
      backBulgeMm: bulge,
    }));

  it('the choice breaks no rule and is the extreme one', () => {
    fc.assert(
      fc.property(fc.array(anyDie, { maxLength: 10 }), anyWatch, (made, watch) => {
        const pressDies = made.map(({ inner, outer, recess, plastic, shank }, at): PressDie => ({
          id: `d${at}`,
          name: `d${at}`,
          costMinor: 1,
          innerMm: inner,
          outerMm: outer,
          recessMm: recess,
          material: plastic ? 'plastic' : 'metal',
          shank,
        }));
        const fit = fitDies({ pressed: 'back', measures: watch, tools: { pressDies, holders: [press()] } });
        const of = (value: number | null): number => value ?? 0;
        const slack = 1e-6;
        // The rules once more, as a technician would read them off the page.
        const overCrystal = pressDies.filter(
          (die) =>
            die.innerMm !== null &&
            die.shank === 'P6' &&
            die.innerMm + slack >= of(watch.crystalMm) + 0.3 &&
            die.innerMm - slack <= of(watch.bezelMm) - 1 &&
            die.recessMm + slack >= Math.max(0, of(watch.crystalAboveMm)) + 0.3 &&
            die.outerMm - slack <= of(watch.caseMm) + 2,
        );
        const curved = of(watch.backBulgeMm) > 0.1;
        const onBack = pressDies.filter(
          (die) =>
            die.shank === 'P6' &&
            die.outerMm - slack <= of(watch.backMm) - 0.4 &&
            (curved
              ? die.innerMm !== null &&
                die.innerMm + slack >= 0.6 * of(watch.backMm) &&
                die.recessMm + slack >= of(watch.backBulgeMm) + 0.2
              : die.innerMm === null && die.outerMm + slack >= 0.8 * of(watch.backMm)),
        );
        const pairs = overCrystal.flatMap((crystal) =>
          onBack.filter((back) => back !== crystal).map((back) => ({ crystal, back })),
        );
        expect(fit.verdict).toBe(pairs.length > 0 ? 'press' : 'no die');
        if (fit.verdict !== 'press') return;
        const chosen = { crystal: fit.crystalSide?.die, back: fit.backSide?.die };
        expect(pairs).toContainEqual(chosen);
        const smallest = Math.min(...pairs.map(({ crystal }) => of(crystal.innerMm)));
        expect(chosen.crystal?.innerMm).toBe(smallest);
        expect(chosen.back?.outerMm).toBe(
          Math.max(
            ...pairs.filter(({ crystal }) => crystal.innerMm === smallest).map(({ back }) => back.outerMm),
          ),
        );
      }),
      { numRuns: 400 },
    );
  });
});
