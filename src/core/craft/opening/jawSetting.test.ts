import fc from 'fast-check';
import { tools } from '../../../../demo/tools';
import { contradictions, notchAngles, pitchCircleMm } from '../cases';
import { jawSetting, overTravel } from './jawSetting';
import { askJaws, twoJaws, wrench } from '../../../testing/wrenches';

describe('three jaws on even notches', () => {
  it.each([
    [6, 31.0, [0, 2, 4], 26.85, 23.25],
    [8, 34.2, [0, 3, 5], 24.18, 29.19],
    [4, 27.5, [0, 1, 3], 27.5, 13.75],
    [5, 29.0, [0, 2, 3], 17.05, 26.23],
    [7, 33, [0, 2, 5], 32.17, 20.17],
    [3, 20.0, [0, 1, 2], 17.32, 15.0],
  ])('%i on %f mm: notches, front pair and rear jaw', (count, pitchMm, notches, front, rear) => {
    const setting = jawSetting(askJaws({ count, pitchMm }));
    expect(setting.verdict).toBe('set');
    expect(setting.found?.choice.notches).toEqual(notches);
    expect(setting.found?.choice.separationMm).toBeCloseTo(front, 2);
    expect(setting.found?.choice.rearDistanceMm).toBeCloseTo(rear, 2);
    expect(setting.found?.choice.offCentreMm).toBe(0);
    expect(setting.working.map(({ what }) => what)).toContain('bite');
  });

  it('takes the wrench with the smallest travel that suffices, and says why not the others', () => {
    const setting = jawSetting(
      askJaws({
        pitchMm: 28,
        wrenches: [
          wrench({ id: 'long', name: 'long', travelMaxMm: 60 }),
          wrench({ id: 'short', name: 'short', travelMaxMm: 26 }),
          wrench({ id: 'tiny', name: 'tiny', travelMaxMm: 18 }),
          wrench({ id: 'stub', name: 'stub', rearMaxMm: 12, travelMaxMm: 30 }),
          wrench({ id: 'broad', name: 'broad', jawWidthsMm: [2.8] }),
          wrench({ id: 'thin', name: 'thin', jawWidthsMm: [0.6] }),
          wrench({ id: 'bare', name: 'bare', jawWidthsMm: [], pinDiametersMm: [1] }),
          twoJaws(),
        ],
      }),
    );
    expect(setting.found?.wrench.id).toBe('short');
    const why = Object.fromEntries(setting.others.map((each) => [each.words, each.why]));
    expect(why.long).toContain('wider than this back needs');
    expect(why.tiny).toContain('over its travel');
    expect(why.stub).toContain('rear jaw');
    expect(why.broad).toContain('does not enter');
    expect(why.thin).toContain('24 %');
    expect(why.bare).toContain('no jaws');
    expect(why['two-jaw wrench']).toContain('tip');
  });

  it('names what would have to be bought where none reaches', () => {
    const setting = jawSetting(askJaws({ wrenches: [wrench({ travelMaxMm: 20 })] }));
    expect(setting).toMatchObject({ verdict: 'nothing fits', found: null });
    expect(setting.wanted).toBe(
      'a three-jaw wrench that reaches 26.85 mm in front and 23.25 mm to the rear jaw, jaws 1.5 to 2.45 mm wide',
    );
    expect(setting.reasons[0]).toContain('Needed');
    expect(jawSetting(askJaws({ wrenches: [] })).verdict).toBe('nothing fits');
  });
});

describe('two jaws', () => {
  it('stand opposite each other, centred, on an even count', () => {
    const { verdict, found } = jawSetting(askJaws({ count: 2, pitchMm: 24.6, wrenches: [twoJaws()] }));
    expect(verdict).toBe('set');
    expect(found?.choice).toMatchObject({ notches: [0, 1], separationMm: 24.6, rearDistanceMm: null });
    expect(found?.choice.offCentreMm).toBeCloseTo(0, 9);
  });

  it('run past the centre on an odd count: they tip', () => {
    const { verdict, found, reasons } = jawSetting(askJaws({ count: 5, pitchMm: 30, wrenches: [twoJaws()] }));
    expect(verdict).toBe('tips');
    expect(found?.choice.separationMm).toBeCloseTo(28.53, 2);
    expect(found?.choice.offCentreMm).toBeCloseTo(4.64, 2);
    expect(reasons.join(' ')).toContain('4.64 mm past the centre');
  });
});

describe('pins in round holes', () => {
  it('fill 80 to 98 % of the hole', () => {
    const pins = (pinDiametersMm: number[]) =>
      jawSetting(
        askJaws({ count: 4, pitchMm: 26, widthMm: 1.5, of: 'holes', wrenches: [wrench({ pinDiametersMm })] }),
      );
    expect(pins([1.1]).verdict).toBe('nothing fits');
    expect(pins([1.2]).found?.bite).toBeCloseTo(0.8, 9);
    expect(pins([1.2, 1.47]).found?.jawMm).toBe(1.47);
    expect(pins([1.5]).verdict).toBe('nothing fits');
  });
});

describe('uneven notches', () => {
  const clocks = [12, 1.9, 4.1, 6, 7.9, 10.1];
  it('are taken by their own angles, within the play of the jaw', () => {
    const { verdict, found } = jawSetting(askJaws({ pitchMm: 30.4, widthMm: 2.8, clocks }));
    expect(verdict).toBe('set');
    expect(found?.choice.notches).toEqual([0, 2, 4]);
    expect(found?.choice.spreadDeg).toBeCloseTo(123, 6);
    expect(found?.choice.mirrorErrorMm).toBeCloseTo(0, 6);
  });

  it('take a narrower jaw where only that has the play', () => {
    const askew = [12, 4.1, 8.15];
    const both = askJaws({ count: 3, pitchMm: 30, widthMm: 3, clocks: askew });
    expect(jawSetting({ ...both, wrenches: [wrench({ jawWidthsMm: [2.9] })] }).verdict).toBe('nothing fits');
    expect(jawSetting({ ...both, wrenches: [wrench({ jawWidthsMm: [2.9, 2] })] }).found?.jawMm).toBe(2);
  });
});

const counts = fc.integer({ min: 2, max: 24 });
const lengths = (min: number, max: number) => fc.double({ min, max, noNaN: true });
/** A count, a pitch circle and a notch that can be: the notches fit round the circle. */
const possible = fc
  .tuple(counts, lengths(8, 60), lengths(0.05, 0.9))
  .map(([count, pitchMm, share]) => ({ count, pitchMm, widthMm: (share * Math.PI * pitchMm) / count }))
  .filter(({ widthMm, pitchMm }) => widthMm < pitchMm);
const wrenches = fc.array(
  fc
    .tuple(fc.constantFrom(2 as const, 3 as const), lengths(0, 30), lengths(1, 50), lengths(0.05, 1.2))
    .map(([jaws, from, span, jaw]) => ({ jaws, from, span, jaw })),
  { minLength: 1, maxLength: 6 },
);
const made = (given: { jaws: 2 | 3; from: number; span: number; jaw: number }, widthMm: number, id: string) =>
  (given.jaws === 3 ? wrench : twoJaws)({
    id,
    name: id,
    jaws: given.jaws,
    travelMinMm: given.from,
    travelMaxMm: given.from + given.span,
    jawWidthsMm: [given.jaw * widthMm],
  });

/** Where a jaw of a setting stands, mm: the rear one on the axis, the front pair mirrored about it. */
function jawPlaces(
  choice: {
    jaws: 2 | 3;
    notches: readonly number[];
    separationMm: number;
    rearDistanceMm: number | null;
    spreadDeg: number;
  },
  pitchMm: number,
  rear: number,
): readonly { x: number; y: number }[] {
  const spread = (choice.spreadDeg * Math.PI) / 180;
  return [0, spread, -spread].map((from) => ({
    x: (pitchMm / 2) * Math.sin(rear + from),
    y: -(pitchMm / 2) * Math.cos(rear + from),
  }));
}

describe('whatever the back', () => {
  it('chosen jaws stand in notches, mirrored, and the setting is what they measure', () => {
    fc.assert(
      fc.property(possible, wrenches, ({ count, pitchMm, widthMm }, given) => {
        const own = given.map((each, index) => made(each, widthMm, `w${index}`));
        const { found, anglesRad, verdict } = jawSetting(askJaws({ count, pitchMm, widthMm, wrenches: own }));
        if (!found) return expect(verdict).toBe('nothing fits');
        const { choice, jawMm, wrench: chosen } = found;
        expect(new Set(choice.notches).size).toBe(choice.jaws);
        expect(jawMm / widthMm).toBeGreaterThanOrEqual(0.6 - 1e-9);
        expect(jawMm / widthMm).toBeLessThanOrEqual(0.98 + 1e-9);
        expect(choice.separationMm).toBeGreaterThanOrEqual(chosen.travelMinMm - 0.01 - 1e-9);
        expect(choice.separationMm).toBeLessThanOrEqual(chosen.travelMaxMm + 0.01 + 1e-9);
        const at = choice.notches.map((notch) => anglesRad[notch] ?? NaN);
        if (choice.jaws === 2) {
          const [a = 0, b = 0] = at;
          expect(choice.separationMm).toBeCloseTo(pitchMm * Math.abs(Math.sin((b - a) / 2)), 6);
          if (verdict === 'set')
            expect(choice.mirrorErrorMm).toBeLessThanOrEqual((widthMm - jawMm) / 2 + 1e-6);
          return;
        }
        const [rear, right, left] = jawPlaces(choice, pitchMm, at[0] ?? 0);
        if (!rear || !right || !left) throw new Error('three jaws');
        expect(choice.separationMm).toBeCloseTo(Math.hypot(right.x - left.x, right.y - left.y), 6);
        const middle = { x: (right.x + left.x) / 2, y: (right.y + left.y) / 2 };
        expect(choice.rearDistanceMm).toBeCloseTo(Math.hypot(rear.x - middle.x, rear.y - middle.y), 6);
        [right, left].forEach((jaw, index) => {
          const angle = at[index + 1] ?? 0;
          const off = Math.hypot(
            jaw.x - (pitchMm / 2) * Math.sin(angle),
            jaw.y + (pitchMm / 2) * Math.cos(angle),
          );
          expect(off).toBeLessThanOrEqual((widthMm - jawMm) / 2 + 1e-6);
        });
        return undefined;
      }),
      { numRuns: 400 },
    );
  });

  it('no way of standing three jaws that reaches, bites and holds the centre is nearer the rule', () => {
    fc.assert(
      fc.property(possible, wrenches, ({ count, pitchMm, widthMm }, given) => {
        const own = given.map((each, index) => made(each, widthMm, `w${index}`));
        const { found } = jawSetting(askJaws({ count, pitchMm, widthMm, wrenches: own }));
        /** The least any such way is off the rule, its limits moved by a share of a hundredth; none: Infinity. */
        const nearest = (playMm: number): number => {
          const within = (value: number, from: number, to: number): boolean =>
            value >= from - playMm && value <= to + playMm;
          const off: number[] = [];
          for (let k = 1; 2 * k < count; k += 1) {
            const spread = (360 * k) / count;
            const front = pitchMm * Math.sin((spread * Math.PI) / 180);
            const rear = (pitchMm / 2) * (1 - Math.cos((spread * Math.PI) / 180));
            const can = own.some(
              (each) =>
                each.jaws === 3 &&
                within(each.jawWidthsMm[0] ?? 0, 0.6 * widthMm, 0.98 * widthMm) &&
                within(front, each.travelMinMm, each.travelMaxMm) &&
                within(rear, each.rearMinMm ?? 0, each.rearMaxMm ?? 0),
            );
            if (can && spread >= 90 - 1e-9) off.push(Math.abs(spread - 120));
          }
          return Math.min(...off);
        };
        // A jaw is set to a hundredth: what reaches within its limits is taken, what misses them by more is not.
        const offRule = found?.choice.jaws === 3 ? found.choice.fromRuleDeg : Infinity;
        expect(offRule).toBeLessThanOrEqual(nearest(0) + 1e-6);
        expect(offRule).toBeGreaterThanOrEqual(nearest(0.01 + 1e-6) - 1e-6);
      }),
      { numRuns: 400 },
    );
  });

  it('uneven notches never break the tolerance of the mirror', () => {
    const clocks = fc
      .uniqueArray(fc.integer({ min: 1, max: 120 }), { minLength: 3, maxLength: 24 })
      .map((tenths) => tenths.map((each) => each / 10));
    fc.assert(
      fc.property(clocks, lengths(15, 45), lengths(0.3, 3), (uneven, pitchMm, widthMm) => {
        const { found } = jawSetting(
          askJaws({
            count: uneven.length,
            pitchMm,
            widthMm,
            clocks: uneven,
            wrenches: [wrench({ jawWidthsMm: [0.6, 0.8, 0.95].map((share) => share * widthMm) }), twoJaws()],
          }),
        );
        if (found && found.choice.jaws === 3)
          expect(found.choice.mirrorErrorMm).toBeLessThanOrEqual((widthMm - found.jawMm) / 2 + 1e-6);
      }),
      { numRuns: 150 },
    );
  });

  it('is the same turned round by a whole notch', () => {
    fc.assert(
      fc.property(possible, fc.nat(23), ({ count, pitchMm, widthMm }, turn) => {
        const even = notchAngles(count, []);
        const asClocks = even.map((angle) => ((angle / (2 * Math.PI)) * 12 + turn * (12 / count)) % 12 || 12);
        const plain = jawSetting(
          askJaws({ count, pitchMm, widthMm, wrenches: [wrench({ jawWidthsMm: [0.8 * widthMm] })] }),
        );
        const turned = jawSetting(
          askJaws({
            count,
            pitchMm,
            widthMm,
            clocks: asClocks,
            wrenches: [wrench({ jawWidthsMm: [0.8 * widthMm] })],
          }),
        );
        expect(turned.verdict).toBe(plain.verdict);
        if (plain.found && turned.found)
          expect(turned.found.choice.separationMm).toBeCloseTo(plain.found.choice.separationMm, 6);
      }),
    );
  });
});

describe('the pitch circle', () => {
  it('comes from the farthest chord of an odd count', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 11 }), lengths(10, 50), (k, pitchMm) => {
        const count = 2 * k + 1;
        const chordMm = pitchMm * Math.sin((Math.PI * k) / count);
        const back = { notchCount: count, pitchMm: null, chordMm, notchClocks: [] };
        expect(pitchCircleMm(back)).toBeCloseTo(pitchMm, 6);
        expect(contradictions({ ...back, pitchMm })).toEqual([]);
      }),
    );
  });

  it('is not known without either, nor from the chord of uneven notches', () => {
    const none = { notchCount: 5, pitchMm: null, chordMm: null, notchClocks: [] };
    expect(pitchCircleMm(none)).toBeNull();
    expect(pitchCircleMm({ ...none, chordMm: 28, notchClocks: [1, 3, 6, 8, 11] })).toBeNull();
    expect(pitchCircleMm({ ...none, notchCount: 1, chordMm: 28 })).toBeNull();
  });
});

describe('a setting over the travel of its tool', () => {
  const [hand] = tools.wrenches;
  const cross = tools.wrenches.find(({ jaws }) => jaws === 2);
  if (!hand || !cross) throw new Error('wrenches wanted');
  it.each([
    [hand, { separationMm: 22, rearMm: 24 }, null],
    [hand, { separationMm: 31.5, rearMm: 24 }, 'separationMm'],
    [hand, { separationMm: 4, rearMm: null }, 'separationMm'],
    [hand, { separationMm: 22, rearMm: 40 }, 'rearMm'],
    [cross, { separationMm: 22, rearMm: 20 }, 'rearMm'],
    [cross, { separationMm: null, rearMm: null }, null],
  ] as const)('%# names the measure and the travel', (tool, set, path) => {
    const over = overTravel(tool, set);
    expect(over?.path ?? null).toBe(path);
    if (over) expect(over.reason).toContain(tool.name);
  });

  it.each([
    [
      { separationMm: 31.5, rearMm: 24 },
      '31.5 mm is outside the travel of hand wrench, three jaws, 10 to 27 mm: measure again, or enter the tool that was used.',
    ],
    [
      { separationMm: null, rearMm: 40 },
      '40 mm is outside the travel of the rear jaw of hand wrench, three jaws, 9 to 28.5 mm.',
    ],
    [
      { separationMm: null, rearMm: 8.9 },
      '8.9 mm is outside the travel of the rear jaw of hand wrench, three jaws, 9 to 28.5 mm.',
    ],
    [{ separationMm: 10, rearMm: 9 }, null],
    [{ separationMm: 27, rearMm: 28.5 }, null],
  ])('%p is told', (set, words) => {
    expect(overTravel(hand, set)?.reason ?? null).toBe(words);
  });

  it('a rear jaw of a wrench whose travel is half known is not set either', () => {
    for (const half of [{ rearMinMm: null }, { rearMaxMm: null }])
      expect(overTravel({ ...hand, ...half }, { separationMm: null, rearMm: 20 })?.reason).toBe(
        'hand wrench, three jaws has two jaws and no rear jaw to set.',
      );
  });
});
