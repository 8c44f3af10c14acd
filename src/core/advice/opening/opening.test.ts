import { back } from '../../../testing/backs';
import fc from 'fast-check';
import { caseTypes } from '../../../../demo/book';
import { tools } from '../../../../demo/tools';
import { context, Logbook } from '../../../testing/fixtures';
import { wayBack } from '../../logbook';
import { FUNCTION_KINDS } from '../../craft/movements';
import { PARTS } from '../../craft/parts';
import { BACK_KINDS, BRACELETS, COATINGS, type MeasuredBack, PANEL_HELD_BY } from '../../craft/cases';
import { chooseOpener, type OpeningPlan, openingPlan } from '../../craft/opening';
import { samples } from '../../../testing/samples';
import { type WatchHistory, watchHistory } from '../watches';
import { asAdvised, expectedBack, openingOf, partsComingOff } from './openingOf';
const ids = (given: OpeningPlan): string[] => given.steps.map(({ id }) => id);

const ask = (job: Logbook, more: Partial<Parameters<typeof openingOf>[0]> = {}) =>
  openingOf({
    state: job.state(),
    history: null,
    tools,
    schools: context.policy.schools,
    typed: null,
    ...more,
  });
const arrived = (reference: string): Logbook => {
  const job = new Logbook();
  job.add('arrive.watch', { ...samples['arrive.watch'], reference });
  return job;
};

describe('how a watch is opened', () => {
  it('goes by the book, then by the last visit, then by what was measured, then by what is typed', () => {
    const job = arrived('K61/08');
    expect(ask(job)).toMatchObject({ kindKnown: true, back: { notchCount: 8, pitchMm: 32.2 } });
    const measured = {
      ...expectedBack(caseTypes.find(({ code }) => code === 'K61/08') ?? null),
      pitchMm: 31,
    };
    const history: WatchHistory = { ...watchHistory([]), measured };
    expect(ask(job, { history }).back.pitchMm).toBe(31);
    job.add('open.measured', { ...measured, pitchMm: 30.5 });
    expect(ask(job, { history }).back.pitchMm).toBe(30.5);
    const typed = { back: { ...measured, pitchMm: 30 }, kindChosen: false };
    expect(ask(job, { history, typed }).back.pitchMm).toBe(30);
  });

  it('says that the kind is guessed, until somebody chooses it', () => {
    const job = arrived('unmarked');
    expect(ask(job)).toMatchObject({ kindKnown: false, back: { kind: 'snap-on' } });
    const back = expectedBack(null);
    expect(ask(job, { typed: { back, kindChosen: false } }).kindKnown).toBe(false);
    expect(ask(job, { typed: { back, kindChosen: true } }).kindKnown).toBe(true);
  });

  it('keeps to the kind on record once the watch is open, and to the measures of that kind', () => {
    const job = arrived('K61/08');
    job.add('open.back', { ...samples['open.back'], kind: 'snap-on' });
    expect(ask(job).back).toMatchObject({
      kind: 'snap-on',
      notchCount: null,
      pitchMm: null,
      coating: 'coated',
    });
  });

  it('is recorded as advised: the tool, and the setting only where that tool is set', () => {
    expect(asAdvised(ask(arrived('K61/08')))).toMatchObject({
      kind: 'screwed, notched',
      toolIds: ['bench-wrench'],
      separationMm: 22.77,
      rearMm: 27.48,
      spotClock: null,
    });
    const odd = {
      ...expectedBack(null),
      kind: 'screwed, notched',
      notchCount: 5,
      pitchMm: 30,
      notchWidthMm: 2.6,
    } as const;
    const two = { ...tools, wrenches: tools.wrenches.filter(({ jaws }) => jaws === 2) };
    const ball = ask(arrived('unmarked'), { tools: two, typed: { back: odd, kindChosen: true } });
    expect(asAdvised(ball)).toMatchObject({ toolIds: ['cross-wrench'], rearMm: null });
    const grips = { ...odd, diameterMm: 33 };
    const both = ask(arrived('unmarked'), { tools: two, typed: { back: grips, kindChosen: true } });
    expect(asAdvised(both).toolIds).toEqual(['cross-wrench', 'ball']);
    const wrong = { ...odd, notchCount: 1 };
    const stopped = ask(arrived('unmarked'), { typed: { back: wrong, kindChosen: true } });
    expect([asAdvised(stopped).openedWith, stopped.plan.stops]).toEqual(['', true]);
  });

  it('lays what comes off on the tray once, however often its step is ticked', () => {
    const job = arrived('418D-20');
    const { plan } = ask(job);
    const coming = partsComingOff(plan.steps, job.state().facts);
    expect(coming.map(({ part, step }) => [part, step])).toContainEqual(['screw', 'screws']);
    for (const part of coming) job.add('open.part', part);
    expect(partsComingOff(plan.steps, job.state().facts)).toEqual([]);
  });
});

describe('the order of work', () => {
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

  it('conserves the parts: what comes off goes back once, the last off first', () => {
    fc.assert(
      fc.property(anyBack, fc.subarray([...FUNCTION_KINDS]), fc.nat(2), (given, functions, innerCovers) => {
        const made = openingPlan({
          back: given,
          opener: chooseOpener({ back: given, tools, crownClock: 3, noCrown: false }),
          tools,
          schools: { protection: 'film', parts: 'plain compartments' },
          keepsFilm: false,
          functions,
          innerCovers,
          movementMm: null,
          lastTime: null,
        });
        expect(new Set(ids(made)).size).toBe(made.steps.length);
        const job = new Logbook();
        const parts = made.steps.flatMap((step) => step.off.map((part) => ({ ...part, step: step.id })));
        for (const part of parts) job.add('open.part', part);
        const way = wayBack(job.state().facts).map(({ off: { payload } }) => payload);
        expect(way).toEqual([...parts].reverse());
        for (const { part, count } of parts) {
          expect(PARTS).toContain(part);
          expect(count).toBeGreaterThan(0);
        }
        const counted = (name: string): number =>
          parts.filter(({ part }) => part === name).reduce((sum, { count }) => sum + count, 0);
        expect(counted('inner cover')).toBe(made.steps.some(({ id }) => id === 'stop') ? 0 : innerCovers);
        for (const covering of ['back', 'plate', 'bezel', 'hatch'] as const)
          if (counted(covering) > 0)
            expect(counted('gasket')).toBe(counted(covering) + counted('inner cover'));
        // What nobody counted is not laid out.
        if (counted('plate') > 0) expect(counted('screw')).toBe(given.screwCount ?? 0);
        for (const entry of job.entries.filter(({ kind }) => kind === 'open.part'))
          job.add('open.part-settled', { partEntryId: entry.id, outcome: 'back in place', note: '' });
        expect(wayBack(job.state().facts)).toEqual([]);
      }),
    );
  });
});

describe('what was measured here, beside what the book has', () => {
  const book = () => expectedBack(caseTypes.find(({ code }) => code === 'K61/08') ?? null);
  const measured = (own: Partial<MeasuredBack>) => {
    const job = arrived('K61/08');
    job.add('open.measured', back({ kind: 'screwed, notched', ...own }));
    return ask(job).back;
  };
  it('fills in what nobody measured, as long as nothing contradicts it', () => {
    expect(measured({ pitchMm: 32.2 })).toMatchObject({ pitchMm: 32.2, notchCount: 8, notchWidthMm: 2.2 });
  });
  it('lets go of the book once a measure differs, or the kind does', () => {
    expect(book().notchCount).toBe(8);
    expect(measured({ notchCount: 6 })).toMatchObject({ notchCount: 6, pitchMm: null, notchWidthMm: null });
    expect(measured({ kind: 'snap-on' })).toMatchObject({ kind: 'snap-on', diameterMm: null });
  });
  it('turns the lip of the book to the side this back was seen from', () => {
    const job = arrived('C2140-3');
    expect(ask(job).opener.spot).toMatchObject({ clock: 6.5, from: 'behind' });
    job.add('open.measured', back({ diameterMm: 32.8, seenFrom: 'the dial' }));
    expect(ask(job).back).toMatchObject({ lipClock: 5.5, seenFrom: 'the dial' });
    expect(ask(job).opener.spot).toMatchObject({ clock: 6.5, from: 'behind' });
  });

  it('does not repeat a place of last time that lies at the crown', () => {
    const job = arrived('C0915-2');
    const lastOpening = {
      atUtc: '2025-03-17T10:00:00.000Z',
      ticket: 'T1',
      kind: 'snap-on',
      openedWith: 'case knife',
      setting: '',
      spotClock: 9,
      seenFrom: 'behind',
      went: 'freely',
    } as const;
    const first = (spotClock: number) =>
      ask(job, { history: { ...watchHistory([]), lastOpening: { ...lastOpening, spotClock } } }).plan.steps[0]
        ?.what;
    expect(first(9)).toContain('but not at the place of last time, which is at the crown at 9');
    expect(first(3)).toBe('Open it as last time: case knife, at 3 o’clock, seen from behind');
  });
});

describe('a back of which nobody said anything', () => {
  it('has no tool, no order of work and nothing on the tray', () => {
    const opening = ask(new Logbook());
    expect(opening.kindKnown).toBe(false);
    expect(opening.opener).toMatchObject({ verdict: 'not yet known', wanted: ['kind'] });
    expect(opening.plan.steps.flatMap(({ off }) => off)).toEqual([]);
    expect(opening.plan.steps.map(({ id }) => id)).toEqual(['clean']);
    expect(asAdvised(opening)).toMatchObject({ kind: null, openedWith: '', toolIds: [] });
  });

  it('lays out no bar, slot or screw that nobody saw, whatever the kind', () => {
    for (const kind of BACK_KINDS) {
      const job = new Logbook();
      job.add('open.measured', { ...expectedBack(null), kind });
      const { plan } = ask(job);
      const parts = plan.steps.flatMap(({ off }) => off.map(({ part }) => part));
      for (const unseen of ['spring bar', 'bracelet pin', 'screw', 'spring', 'buzzer spring'] as const)
        expect(parts).not.toContain(unseen);
      const cautions = plan.steps.map(({ caution }) => caution ?? '').join(' ');
      expect(cautions).not.toMatch(/slot|It jumps/);
    }
  });
});
