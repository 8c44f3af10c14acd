import { back, choose, typeOf } from '../../../testing/backs';
import fc from 'fast-check';
import { measuredBack } from '../../../../demo/steps';
import { tools } from '../../../../demo/tools';
import { NO_TOOLS } from '../tools';
import { BACK_KINDS, BRACELETS, COATINGS, type MeasuredBack, measuresOf, PANEL_HELD_BY } from '../cases';
import { chooseDriver, fitOpenerDie } from './fitTools';
import { chooseOpener } from './chooseOpener';
import { type OpeningPlan, openingPlan } from './openingPlan';
import type { PlanQuestion } from './planStep';
describe('what opens a back', () => {
  it.each([
    ['C2140-3', 'case knife', ['knife']],
    // The hand wrench reaches too, but fills the notches less: the one that bites most.
    ['K61/08', 'bench wrench, three jaws', ['bench-wrench']],
    ['VC210-04', 'bench wrench, three jaws', ['bench-wrench']],
    ['C3312-4', 'die 12/30.5 in die holder', ['die-12-305', 'die-holder']],
    ['418D-20', 'screwdriver 1.4', ['driver-14']],
    ['377A-05', 'case knife', ['knife']],
    ['Q224B', 'hatch key', ['hatch-key']],
    ['455A-30', 'blunt pin', ['blunt-pin']],
    ['DK114', 'thumbs, then blunt blade', ['blunt-blade']],
    ['DK072', 'cross-head PH00', ['driver-ph00']],
  ])('%s: %s, from this shop’s tools', (code, opener, toolIds) => {
    const choice = chooseOpener({ back: measuredBack(typeOf(code)), tools, crownClock: 3, noCrown: false });
    expect(choice).toMatchObject({ verdict: 'opens with', opener, toolIds, toBuy: null });
    expect(choice.reasons.length).toBeGreaterThan(0);
  });

  it.each([
    [{ kind: 'screwed, notched' }, ['notchCount', 'pitchMm', 'notchWidthMm']],
    [{ kind: 'screwed, notched', notchCount: 5, notchWidthMm: 2 }, ['chordMm']],
    [{ kind: 'screwed, round holes', notchCount: 4, pitchMm: 26 }, ['notchWidthMm']],
    [{ kind: 'screwed, patterned', flatCount: 12 }, ['flatCount', 'acrossMm']],
    [{ kind: 'screwed, patterned', flatCount: 12, acrossMm: 30.4 }, ['toothForm']],
    [{ kind: 'plate on screws' }, ['screwHead']],
    [{ kind: 'plate on screws', screwHead: 'slotted' }, ['slotLengthMm', 'slotWidthMm']],
    [{ kind: 'plate on screws', screwHead: 'cross-head' }, ['crossSize']],
    [{ kind: 'battery hatch' }, ['hatchOpens']],
    [{ kind: 'latched panel' }, ['panelHeldBy']],
  ] as [Partial<MeasuredBack>, string[]][])('%j: names the measures it still wants', (own, wanted) => {
    const choice = choose(own);
    expect(choice).toMatchObject({ verdict: 'not yet known', wanted });
    for (const each of wanted) expect(measuresOf(back(own).kind)).toContain(each);
  });

  it('a sliding lock wants thumbs and no tool', () => {
    expect(choose({ kind: 'latched panel', panelHeldBy: 'sliding lock' })).toMatchObject({
      verdict: 'opens with',
      opener: 'thumbs',
      toolIds: [],
    });
  });

  it('an odd count no three jaws reach goes to the friction ball, and tips without one', () => {
    const odd = {
      kind: 'screwed, notched',
      notchCount: 5,
      pitchMm: 30,
      notchWidthMm: 2.6,
      diameterMm: 33,
    } as const;
    const two = { ...tools, wrenches: tools.wrenches.filter(({ jaws }) => jaws === 2) };
    // Loosened by the wrench and spun off by the ball is one way.
    expect(choose(odd, two)).toMatchObject({ verdict: 'with care', toolIds: ['cross-wrench', 'ball'] });
    // Where nobody measured the back, no ball is said to grip it.
    expect(choose({ ...odd, diameterMm: null }, two)).toMatchObject({ toolIds: ['cross-wrench'] });
    expect(choose({ ...odd, coating: 'plastic' }, two)).toMatchObject({ toolIds: ['cross-wrench'] });
    const bare = choose(odd, { ...two, balls: [] });
    expect(bare).toMatchObject({ verdict: 'with care', toolIds: ['cross-wrench'] });
    expect(bare.toBuy).toContain('three jaws');
    expect(choose({ ...odd, notchWidthMm: 9 }, two)).toMatchObject({
      verdict: 'with care',
      toolIds: ['ball'],
    });
    expect(choose({ ...odd, notchWidthMm: 9 }, { ...two, balls: [] })).toMatchObject({
      verdict: 'refer or buy',
      toolIds: [],
    });
  });

  it.each(BACK_KINDS)('%s: a shop without tools is told what to buy, and never throws', (kind) => {
    const own = {
      kind,
      notchCount: 6,
      pitchMm: 30,
      notchWidthMm: 2,
      flatCount: 12,
      acrossMm: 30,
      toothForm: 'flat facets',
      slotLengthMm: 2,
      slotWidthMm: 0.3,
      panelHeldBy: 'catches',
    } as const;
    const choice = choose(own, NO_TOOLS);
    expect(choice.verdict).toBe('refer or buy');
    expect(choice.toBuy).toMatch(/^an? /);
    expect(choice.reasons[0]).toMatch(/\.$/);
  });
});

describe('dies', () => {
  const fit = (acrossMm: number, flatCount = 12) =>
    fitOpenerDie({ flatCount, acrossMm, toothForm: 'flat facets' }, tools.openerDies, tools.holders);
  it('take the one that goes over without shake, and name the neighbour', () => {
    const found = fit(30.4);
    expect(found).toMatchObject({ verdict: 'fits', die: { id: 'die-12-305' }, holder: { id: 'die-holder' } });
    expect(found.mistake?.id).toBe('die-12-305-square');
    expect(found.reasons.join(' ')).toContain('square teeth, which slip');
    expect(fit(29.4).mistake?.id).toBe('die-12-305');
    expect(fit(29.4).reasons.join(' ')).toContain('rounds off the flats');
  });
  it('never the nearest: by how much it fails', () => {
    expect(fit(30.6)).toMatchObject({ verdict: 'none fits', die: null });
    expect(fit(30.6).reasons.at(-1)).toContain('0.1 mm too small');
    expect(fit(30.2).reasons.at(-1)).toContain('0.3 mm too large');
    expect(fit(30, 7).reasons[0]).toBe('No die of this shop has 7 flats with flat facets.');
  });
  it('a die without a holder of its shank opens nothing; a key needs none', () => {
    expect(fit(27.4, 10)).toMatchObject({ verdict: 'no holder', die: { id: 'die-10-275' } });
    expect(fit(26, 8)).toMatchObject({ verdict: 'fits', die: { id: 'key-8-26' }, holder: null });
    expect(
      choose({ kind: 'screwed, patterned', flatCount: 10, acrossMm: 27.4, toothForm: 'flat facets' }),
    ).toMatchObject({
      verdict: 'refer or buy',
      toBuy: 'a holder for the shank S8',
    });
  });
});

it('a knife goes under the bezel from the dial, never at the crown', () => {
  const front = { kind: 'opens from the front' } as const;
  const chosen = choose(front);
  expect(chosen).toMatchObject({ verdict: 'opens with', spot: { clock: 9, from: 'the dial' } });
  expect(plan(front).steps.find(({ id }) => id === 'bezel')?.what).toBe(
    'Case knife under the bezel in at 9 o’clock, seen from the dial',
  );
  expect(choose({ ...front, lipClock: 3, seenFrom: 'the dial' })).toMatchObject({
    verdict: 'not yet known',
    toolIds: [],
    wanted: ['lipClock'],
  });
});

it('the same size with other teeth does not fit', () => {
  const square = {
    kind: 'screwed, patterned',
    flatCount: 12,
    acrossMm: 30.4,
    toothForm: 'square teeth',
  } as const;
  expect(choose(square)).toMatchObject({
    verdict: 'opens with',
    toolIds: ['die-12-305-square', 'die-holder'],
  });
  const rounded = choose({ ...square, toothForm: 'rounded teeth' });
  expect(rounded).toMatchObject({ verdict: 'refer or buy', toolIds: [] });
  expect(rounded.reasons.join(' ')).toContain('No die of this shop has 12 flats with rounded teeth');
});

describe('a hatch', () => {
  it('with a nick is pried, with a slot turned, and both cannot be', () => {
    const pried = { kind: 'battery hatch', hatchOpens: 'pried' } as const;
    expect(choose(pried)).toMatchObject({ verdict: 'opens with', toolIds: ['blunt-blade'] });
    expect(plan(pried).steps.find(({ id }) => id === 'hatch')?.what).toBe('Lift the hatch with blunt blade');
    const turned = { kind: 'battery hatch', hatchOpens: 'turned', slotLengthMm: 7.5 } as const;
    expect(choose(turned)).toMatchObject({ toolIds: ['hatch-key'] });
    expect(plan(turned).steps.find(({ id }) => id === 'hatch')?.what).toBe('Turn the hatch with hatch key');
    expect(choose({ ...pried, slotLengthMm: 7.5 }).verdict).toBe('impossible');
  });
});

describe('a panel held by several things', () => {
  const layered = {
    kind: 'latched panel',
    panelHeldBy: 'sliding lock',
    panelThenBy: 'adhesive',
    panelLastBy: 'catches',
  } as const;
  it('is undone layer by layer, each with its tool', () => {
    const choice = choose(layered);
    expect(choice.opener).toBe('thumbs, then blunt blade, then blunt pin');
    expect(choice.toolIds).toEqual(['blunt-blade', 'blunt-pin']);
    expect(ids(plan(layered))).toEqual(expect.arrayContaining(['lock', 'unstick', 'catches', 'panel']));
    expect(off(plan(layered))).toEqual(['1 panel', '1 adhesive']);
  });
  it('is not opened while one of its tools is missing', () => {
    const noPin = { ...tools, blades: tools.blades.filter(({ form }) => form !== 'blunt pin') };
    expect(choose(layered, noPin)).toMatchObject({ verdict: 'refer or buy', toBuy: 'a blunt pin' });
  });
  it('names each once', () => {
    expect(choose({ ...layered, panelThenBy: 'sliding lock' }).verdict).toBe('impossible');
  });
});

describe('beneath the back', () => {
  it('a plain dust cover comes off and goes on the tray, a sealed one with its ring', () => {
    expect(off(plan({ lipClock: 6, dustCover: 'pressed on' }))).toEqual([
      '1 back',
      '1 gasket',
      '1 inner cover',
    ]);
    expect(off(plan({ lipClock: 6, dustCover: 'pressed on' }, { innerCovers: 1 }))).toEqual([
      '1 back',
      '1 gasket',
      '1 inner cover',
      '1 gasket',
    ]);
  });
});

describe('the holder', () => {
  const turned = { kind: 'screwed, notched', notchCount: 6, pitchMm: 29.6, notchWidthMm: 2.6 } as const;
  const hold = (own: Partial<MeasuredBack>, more: Partial<PlanQuestion> = {}) =>
    plan(own, more).steps.find(({ id }) => id === 'hold');
  it('fits the case, not the back, and is asked for where nobody measured it', () => {
    expect(hold({ ...turned, diameterMm: 33.4, caseMm: 38 })?.what).toBe(
      'Put the case into the four-post case holder',
    );
    expect(hold({ ...turned, diameterMm: 45, caseMm: 48 })).toMatchObject({
      what: 'Put the case into a case holder',
      how: expect.stringContaining('No holder in this shop takes 48 mm') as string,
    });
    expect(hold({ ...turned, diameterMm: 33.4 })?.how).toContain(
      'the holder is chosen by the case, not by the back',
    );
  });
  it('of a movement fits the movement', () => {
    const front = { kind: 'opens from the front', lipClock: 9, seenFrom: 'the dial' } as const;
    expect(hold(front, { movementMm: 20 })?.what).toBe('Have the nylon movement holder ready');
    expect(hold(front, { movementMm: 40 })?.what).toBe('Have a movement holder ready');
    expect(hold(front)?.how).toContain('Measure the movement across');
  });
});

describe('cross-heads', () => {
  const cross = { kind: 'plate on screws', screwHead: 'cross-head' } as const;
  it('take their own size and no other, and never a blade', () => {
    expect(choose({ ...cross, crossSize: 'PH00' })).toMatchObject({ toolIds: ['driver-ph00'] });
    expect(choose({ ...cross, crossSize: 'PH0' })).toMatchObject({
      verdict: 'refer or buy',
      toBuy: 'a screwdriver for cross-heads PH0',
    });
    const blades = { ...tools, drivers: tools.drivers.filter(({ tip }) => tip === 'slotted') };
    expect(choose({ ...cross, crossSize: 'PH00' }, blades).reasons[0]).toContain(
      'a flat blade damages a cross',
    );
    expect(choose({ ...cross, crossSize: 'PH00', slotLengthMm: 2 }).verdict).toBe('impossible');
  });
});

describe('drivers', () => {
  const slot = (lengthMm: number, widthMm: number) => chooseDriver({ lengthMm, widthMm }, tools.drivers);
  it.each([
    [1.6, 0.3, 'driver-14'],
    [2, 0.35, 'driver-18'],
    [0.9, 0.2, 'driver-08'],
  ])('a slot of %f × %f mm takes %s', (length, width, id) => {
    expect(slot(length, width)).toMatchObject({ verdict: 'fits', driver: { id } });
  });
  it('says which measure fails where none fits', () => {
    expect(slot(1.6, 0.25).reasons[0]).toContain('too thick');
    expect(slot(1.6, 0.6).reasons[0]).toContain('too thin');
    expect(slot(4, 0.35).reasons[0]).toContain('too narrow');
    expect(slot(0.5, 0.2).reasons[0]).toContain('wider');
    expect(chooseDriver({ lengthMm: 1, widthMm: 0.2 }, []).verdict).toBe('none fits');
  });
});
const plan = (own: Partial<MeasuredBack>, more: Partial<PlanQuestion> = {}): OpeningPlan =>
  openingPlan({
    back: back(own),
    opener: choose(own),
    tools,
    schools: { protection: 'bare tool', parts: 'plain compartments' },
    keepsFilm: false,
    functions: [],
    innerCovers: 0,
    movementMm: null,
    lastTime: null,
    ...more,
  });
const ids = (given: OpeningPlan): string[] => given.steps.map(({ id }) => id);
const off = (given: OpeningPlan): string[] =>
  given.steps.flatMap((step) => step.off.map(({ part, count }) => `${count} ${part}`));

describe('the order of work', () => {
  it('is visibly another for a dress watch, a plastic panel, a coated back and a digital on screws', () => {
    const dress = plan({
      kind: 'opens from the front',
      lipClock: 6,
      coating: 'polished',
      bracelet: 'strap on spring bars',
    });
    const panel = plan({ kind: 'latched panel', coating: 'plastic', panelHeldBy: 'adhesive' });
    const coated = plan({
      kind: 'screwed, notched',
      coating: 'coated',
      notchCount: 6,
      pitchMm: 29.6,
      notchWidthMm: 2.6,
      bracelet: 'closed bracelet, link pins',
    });
    const digital = plan(
      {
        kind: 'plate on screws',
        screwCount: 4,
        slotLengthMm: 1.6,
        slotWidthMm: 0.3,
        pusherClocks: [2, 4, 8, 10],
      },
      { functions: ['digital display', 'alarm'] },
    );
    expect(ids(dress)).toEqual(['clean', 'bracelet', 'film', 'hold', 'bezel', 'as-found', 'movement-out']);
    expect(off(dress)).toEqual(['1 bezel', '1 gasket', '1 movement']);
    expect(off(panel)).toEqual(['1 panel', '1 adhesive']);
    expect(ids(coated)).toEqual(['clean', 'bracelet', 'film', 'hold', 'set', 'turn', 'by-hand', 'as-found']);
    expect(off(coated)).toEqual(['1 bracelet pin', '1 back', '1 gasket']);
    expect(coated.steps.find(({ id }) => id === 'set')?.how).toContain('25.63 mm');
    // Springs nobody saw yet are looked for, and not laid out.
    expect(off(digital)).toEqual(['4 screw', '1 plate', '1 gasket']);
    expect(digital.steps.find(({ id }) => id === 'plate')?.how).toContain(
      'a buzzer spring and springs at the pushers',
    );
  });

  it('puts film on what cannot be polished, whatever the shop’s way, and says why', () => {
    expect(ids(plan({ coating: 'plain' }))).not.toContain('film');
    expect(plan({ coating: 'coated' }).steps.find(({ id }) => id === 'film')?.caution).toContain(
      'cannot be polished out',
    );
    const kept = plan({}, { keepsFilm: true, schools: { protection: 'film', parts: 'magnetic dish' } });
    expect(ids(kept)).toEqual(expect.arrayContaining(['owners-film', 'film']));
    expect(kept.steps.find(({ id }) => id === 'as-found')?.how).toContain('magnetic dish');
  });

  it('takes the strap off where no mark is seen, and lets it be where one is', () => {
    const strap = { bracelet: 'strap on spring bars' } as const;
    expect(off(plan({ ...strap, lipClock: null }))).toContain('2 spring bar');
    expect(off(plan({ ...strap, lipClock: 6 }))).not.toContain('2 spring bar');
    expect(ids(plan({ bracelet: 'nothing on it' }))).not.toContain('bracelet');
  });

  it('starts with what worked last time', () => {
    const again = plan(
      { lipClock: 6 },
      { lastTime: { openedWith: 'case knife', setting: 'at 6.5 o’clock', notes: ['it clicks late'] } },
    );
    expect(again.steps[0]).toMatchObject({
      id: 'last-time',
      what: 'Open it as last time: case knife, at 6.5 o’clock',
      how: 'it clicks late',
    });
  });

  it('stops where nothing of the shop opens it, or its measures cannot be', () => {
    const own = {
      kind: 'screwed, patterned',
      flatCount: 10,
      acrossMm: 25,
      toothForm: 'square teeth',
    } as const;
    expect(ids(plan(own))).toEqual(['clean', 'stop']);
    expect(plan(own).steps[1]?.how).toContain('a die of 10 flats, 25 mm across, square teeth');
    const wrong = { kind: 'screwed, notched', notchCount: 1, pitchMm: 30, notchWidthMm: 2 } as const;
    expect(plan(wrong).steps.at(-1)?.what).toBe('Measure again');
    expect(off(plan(wrong))).toEqual([]);
  });

  const anyBack: fc.Arbitrary<MeasuredBack> = fc
    .record({
      kind: fc.constantFrom(...BACK_KINDS),
      coating: fc.constantFrom(...COATINGS, null),
      bracelet: fc.constantFrom(...BRACELETS),
      lipClock: fc.constantFrom(null, 6, 7.5),
      notchCount: fc.constantFrom(null, 2, 4, 5, 6, 8),
      pitchMm: fc.constantFrom(null, 26, 31),
      notchWidthMm: fc.constantFrom(null, 1.3, 2.2),
      flatCount: fc.constantFrom(null, 8, 12),
      acrossMm: fc.constantFrom(null, 26, 30.4),
      screwCount: fc.constantFrom(null, 4, 6),
      slotLengthMm: fc.constantFrom(null, 1.6, 7),
      slotWidthMm: fc.constantFrom(null, 0.3),
      panelHeldBy: fc.constantFrom(...PANEL_HELD_BY, null),
      pusherClocks: fc.constantFrom([], [2, 4]),
    })
    .map((own) => back(own));
  it('has one caution a step at most, each with its reason', () => {
    fc.assert(
      fc.property(anyBack, (given) => {
        const { steps } = openingPlan({
          back: given,
          opener: chooseOpener({ back: given, tools, crownClock: null, noCrown: false }),
          tools: NO_TOOLS,
          schools: { protection: 'film', parts: 'plain compartments' },
          keepsFilm: true,
          functions: [],
          innerCovers: 0,
          movementMm: null,
          lastTime: null,
        });
        for (const { what, how, caution } of steps) {
          expect(what).toMatch(/^[A-Z0-9]/);
          expect(how).toMatch(/[^!]{8,}/);
          expect(`${what} ${how} ${caution ?? ''}`).not.toMatch(/undefined|NaN|null|!/);
        }
      }),
    );
  });
});
