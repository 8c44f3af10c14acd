import fc from 'fast-check';
import { book } from '../../../testing/fixtures';
import { type Calibre, HOLD_KINDS, type Well } from '../movements';
import { USUAL_SCHOOLS } from '../policy';
import { fittingGuide } from './guide';
import { HOLDER_WAYS } from './holders';
const calibre = (id: string): Calibre => {
  const found = book.calibre(id);
  if (!found) throw new Error(id);
  return found;
};
const asGuided = (of: Calibre) => ({ ...of, coilsSeen: null, contactOfRevision: '' });
const guide = (
  of: Calibre,
  change: Partial<Parameters<typeof fittingGuide>[0]> & { readonly well?: Well } = {},
) =>
  fittingGuide({
    movement: asGuided(of),
    place: change.well ?? (of.wells[0] as Well),
    notSeen: [],
    above: { off: [], on: [] },
    cellDiameterMm: 6.8,
    schools: USUAL_SCHOOLS,
    prints: [],
    fromFront: false,
    noneFound: false,
    foundClean: true,
    further: false,
    ofPair: null,
    last: true,
    dangersNamed: [],
    ...change,
  });
const ids = (of: Calibre, change: Parameters<typeof guide>[1] = {}): string[] =>
  guide(of, change).steps.map(({ id }) => id);

describe('the fitting guide', () => {
  it('tells each danger once, and ids once, for every holder and calibre; a holder’s own at each of its steps', () => {
    for (const of of book.calibres.filter(({ wells }) => wells.length > 0))
      for (const heldBy of HOLD_KINDS) {
        const { steps } = guide(of, { well: { ...(of.wells[0] as Well), heldBy } });
        const dangers = steps.flatMap(({ danger }) => danger ?? []);
        const own = dangers.filter((danger) => danger === HOLDER_WAYS[heldBy].danger);
        expect(own).toHaveLength(HOLDER_WAYS[heldBy].dangerAt.length);
        expect(new Set(dangers).size).toBe(dangers.length - own.length + 1);
        expect(new Set(steps.map(({ id }) => id)).size).toBe(steps.length);
        expect(steps.some(({ phase }) => phase === 'out') && steps.some(({ phase }) => phase === 'in')).toBe(
          true,
        );
      }
  });

  it('takes off what lies above first, and puts it on last, in reverse, each part on the tray and back', () => {
    for (const heldBy of HOLD_KINDS) {
      const of = calibre('orrelin-41-2');
      const lies = ['plate', 'buzzer spring', 'movement ring'] as const;
      const { steps } = guide(of, {
        above: { off: lies, on: lies },
        well: { ...(of.wells[0] as Well), heldBy },
      });
      const at = (phase: string): string[] =>
        steps.filter((step) => step.phase === phase).map(({ id }) => id.replace(/^(out|in)-/, ''));
      const above = ['above-plate', 'above-buzzer-spring', 'above-movement-ring'];
      expect(at('out').slice(0, 3)).toEqual(above);
      expect(at('in').slice(-3)).toEqual([...above].reverse());
      // Whatever went to the tray is named as put back at one later step, and at no other.
      const laid = steps.filter(({ off }) => off.length > 0);
      expect(laid.length).toBeGreaterThanOrEqual(3);
      for (const { id } of laid) {
        const back = steps.filter((step) => step.back === id);
        expect(back).toHaveLength(1);
        expect(steps.indexOf(back[0] as (typeof steps)[0])).toBeGreaterThan(
          steps.findIndex((step) => step.id === id),
        );
      }
      expect(steps.flatMap(({ back }) => back ?? [])).toHaveLength(laid.length);
    }
  });

  it('of two wells takes off at the first what is put on, and reset, after the last', () => {
    const of = calibre('orrelin-41-2');
    const movement = { ...asGuided(of), resetContact: 'AC to +' };
    const lies = ['movement ring'] as const;
    const first = guide(of, { movement, last: false, above: { off: lies, on: [] } }).steps.map(
      ({ id }) => id,
    );
    const second = guide(of, { movement, further: true, above: { off: [], on: lies } }).steps.map(
      ({ id }) => id,
    );
    expect([first.includes('out-above-movement-ring'), second.includes('out-above-movement-ring')]).toEqual([
      true,
      false,
    ]);
    expect([first.includes('in-above-movement-ring'), second.includes('in-above-movement-ring')]).toEqual([
      false,
      true,
    ]);
    expect([first.includes('after-reset'), second.includes('after-reset')]).toEqual([false, true]);
  });

  it('puts the insulators in before the cell, the clip before the push down, the reset after', () => {
    const steps = ids(calibre('orrelin-41-2'));
    expect(steps.indexOf('between-insulators')).toBeLessThan(steps.indexOf('in-polarity'));
    const digital = book.calibres.find(({ resetContact }) => resetContact !== null) as Calibre;
    expect(ids(digital).at(-2)).toBe('after-reset');
  });

  it('names the reset from the print where the book names none', () => {
    const of = { ...calibre('orrelin-41-2'), resetContact: null };
    expect(ids(of)).not.toContain('after-reset');
    const printed = guide(of, { prints: ['JOIN AC AFTER CHANGE'] });
    expect(printed.steps.find(({ id }) => id === 'after-reset')?.how).toContain('JOIN AC');
  });

  it('says what holds for all wells at the first alone, and speaks of crust only where there may be some', () => {
    const of = calibre('orrelin-41-2');
    expect(ids(of, { further: true })).not.toContain('before-hands');
    const crust = (foundClean: boolean) =>
      guide(of, { foundClean }).steps.find(({ id }) => id === 'between-contacts')?.danger ?? '';
    expect([crust(true), crust(false)]).toEqual(['', expect.stringContaining('burns')]);
  });

  it('lifts no cell where none was found, and says of none how it lay', () => {
    for (const heldBy of HOLD_KINDS) {
      const of = calibre('orrelin-41-2');
      const { steps } = guide(of, {
        place: { ...(of.wells[0] as Well), heldBy, faceUp: null },
        noneFound: true,
      });
      const out = steps.filter(({ phase }) => phase === 'out').map(({ what }) => what);
      expect(out.join(' ')).not.toMatch(/Take the cell out|Lift the cell|Ease the cell/);
      expect(steps.map(({ how }) => how).join(' ')).not.toContain('Fit the cell the way the old one lay');
    }
  });

  it('supports the dial of a watch that opens from the front', () => {
    expect(ids(calibre('orrelin-41-2'), { fromFront: true })).toContain('before-dial');
    expect(ids(calibre('orrelin-41-2'))).not.toContain('before-dial');
  });

  it('sees a coil ahead of the push, by its distance, and none beside it', () => {
    const of: Calibre = {
      ...calibre('orrelin-41-2'),
      keepClearMm: 1,
      coils: [{ xMm: 0, yMm: 8, lengthMm: 8, widthMm: 2, degrees: 90 }],
    };
    const well: Well = { ...(of.wells[0] as Well), xMm: 0, yMm: 0, pushDegrees: 0 };
    // From the rim at 3.4 mm to the zone at 8 − 1 − 1.
    expect(guide(of, { well }).drawing.coilAheadMm).toBeCloseTo(2.6, 6);
    expect(guide(of, { well }).steps.find(({ id }) => id === 'before-brace')?.danger).toContain(
      '2.6 mm ahead',
    );
    for (const pushDegrees of [90, 180, 270])
      expect(guide(of, { well: { ...well, pushDegrees } }).drawing.coilAheadMm).toBeNull();
  });

  it('turns with the movement', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 359 }), fc.integer({ min: 0, max: 359 }), (push, turn) => {
        const at = (by: number) => {
          const angle = (by / 180) * Math.PI;
          const [x, y] = [3, 6];
          const of: Calibre = {
            ...calibre('orrelin-41-2'),
            shape: 'round',
            coils: [
              {
                xMm: x * Math.cos(angle) + y * Math.sin(angle),
                yMm: y * Math.cos(angle) - x * Math.sin(angle),
                lengthMm: 6,
                widthMm: 2,
                degrees: by,
              },
            ],
          };
          const well: Well = { ...(of.wells[0] as Well), xMm: 0, yMm: 0, pushDegrees: push + by };
          return guide(of, { well }).drawing.coilAheadMm;
        };
        const [still, turned] = [at(0), at(turn)];
        return still === null || turned === null ? still === turned : Math.abs(still - turned) < 1e-6;
      }),
    );
  });
});

it('says from which side the bracing hand’s hour is seen, and turns it for a watch that opens from its front', () => {
  const of = calibre('orrelin-41-2');
  const brace = (fromFront: boolean): string =>
    guide(of, { fromFront }).steps.find(({ id }) => id === 'before-brace')?.what ?? '';
  const hour = (words: string): number => Number(/at ([\d.]+) o’clock/.exec(words)?.[1] ?? 'NaN');
  expect(brace(false)).toContain('seen from behind');
  expect(brace(true)).toContain('seen from the dial');
  expect((hour(brace(false)) + hour(brace(true))) % 12).toBe(0);
});
