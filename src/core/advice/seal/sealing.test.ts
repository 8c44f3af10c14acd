import { samples } from '../../../testing/samples';
import { book, context, idOf, type Logbook, lot, takenIn } from '../../../testing/fixtures';
import type { Lot } from '../../craft/stock';
import { type Payloads, activeRing } from '../../logbook';
import {
  assortmentOf,
  chooseRing,
  closingOf,
  diesOf,
  fittedRing,
  gasketAdvice,
  staysClosedYears,
  wornOf,
} from './sealing';
import { openingOf } from '../opening';

const gasket: Payloads['seal.gasket'] = { ...samples['seal.gasket'], findings: [], reason: 'x' };
const nothingSaid = { findings: [], ageYears: 1, meetsWater: false } as const;
const rings = (code: string, balance = 3): Lot => ({ ...lot, id: idOf(code), item: 'gasket', code, balance });
const opened = (job: Logbook, kind: Payloads['open.back']['kind'] = 'snap-on') => {
  job.add('open.back', { ...samples['open.back'], kind });
  return job;
};
const openingFor = (job: Logbook) =>
  openingOf({ state: job.state(), history: null, tools: book, schools: context.policy.schools, typed: null });
const advice = (job: Logbook, closedYears: number | null = 2) =>
  gasketAdvice(job.state(), nothingSaid, closedYears, context);

const DAY = '2026-03-17';

describe('renew or reuse, of this watch', () => {
  it('goes by the rating the book has where the watch says none', () => {
    const job = takenIn('cell and reseal');
    const rated = job.state().facts.watch?.payload.ratingBar ?? null;
    expect(rated === null || rated < 5).toBe(true);
    const state = job.state();
    const deep = { ...state, caseType: state.caseType && { ...state.caseType, ratingBar: 10 } };
    const said = gasketAdvice({ ...deep, facts: { ...deep.facts, watch: null } }, nothingSaid, 2, context);
    expect(said.reasons.join(' ')).toContain('rated 10 bar');
  });

  it('renews what stays shut for over three years, and what charges itself', () => {
    expect(advice(takenIn('cell and reseal'), 2).verdict).toBe('reuse');
    expect(advice(takenIn('cell and reseal'), 3.4).reasons.join(' ')).toContain('stay closed for 3.4 years');
    expect(advice(takenIn('recharge or new accumulator', 'vessarin-210s'), null).reasons.join(' ')).toContain(
      'charges itself',
    );
  });

  it('renews a ring measured flat, whatever else is said', () => {
    const job = takenIn('cell and reseal');
    job.add('seal.old-ring', samples['seal.old-ring']);
    expect(wornOf(job.state(), book)).toBeNull();
    job.add('seal.groove', samples['seal.groove']);
    expect(wornOf(job.state(), book)?.verdict).toBe('renew');
    expect(advice(job).verdict).toBe('renew');
  });
});

describe('how long it stays shut', () => {
  it('nobody can say before a cell is in, and then until the next visit', () => {
    const job = takenIn('cell only', 'orrelin-41-2');
    expect(staysClosedYears(job.state(), [lot], context)).toBeNull();
    job.add(
      'cell.fitted',
      {
        cellCode: lot.code,
        lotId: lot.id,
        supplier: lot.supplier,
        lotCode: lot.lotCode,
        alkalineAgreed: false,
        ownersOwn: false,
      },
      { well: 'main' },
    );
    const years = staysClosedYears(job.state(), [lot], context);
    expect(years).toBeGreaterThan(0.2);
    expect(years).toBeLessThan(6);
  });
});

describe('which ring', () => {
  const groove = samples['seal.groove'];

  it('is of the stock first, with how many there are and where else it is used', () => {
    const choice = chooseRing(
      groove,
      assortmentOf(book, [rings('30.5 × 0.70'), rings('30.1 × 0.70', 2)], DAY),
      null,
    );
    expect(choice.best.map(({ ring, fit }) => [ring.code, ring.left, fit.verdict])).toEqual([
      ['30.1 × 0.70', 2, 'fits'],
      ['30.5 × 0.70', 3, 'fits'],
    ]);
    expect(choice.best[1]?.ring.caseCodes).toContain('C2140-3');
  });

  it('where the stock has none that fits is one of the book, and what to order', () => {
    const choice = chooseRing(
      groove,
      assortmentOf(book, [rings('30.5 × 0.70', 0), rings('22 × 0.5')], DAY),
      null,
    );
    const first = choice.best.find(({ fit }) => fit.verdict === 'fits');
    expect(first?.ring).toMatchObject({ code: '30.5 × 0.70', left: 0 });
    expect(choice.wanted?.sectionMm).toBeCloseTo(0.71);
  });

  it('takes no shaped ring and no words for a size', () => {
    const shaped = {
      ...book,
      gaskets: book.gaskets.map((each) => ({ ...each, profile: 'L-shaped' as const })),
    };
    expect(assortmentOf(shaped, [rings(book.gaskets[0]?.code ?? ''), rings('crown seal'), lot], DAY)).toEqual(
      [],
    );
  });

  it('is counted however its bag is written, and not where its lot was set aside or is past its date', () => {
    const aside: Lot = {
      ...rings('30.5 × 0.70', 4),
      id: idOf('aside'),
      quarantined: 'sticky',
    };
    const past: Lot = { ...rings('30.5 × 0.70', 5), id: idOf('past'), bestBefore: '2026-03-16' };
    const of = assortmentOf(book, [rings('30,5x0.7'), aside, past], DAY);
    expect(of.filter(({ size }) => size.insideMm === 30.5 && size.sectionMm === 0.7)).toMatchObject([
      { code: '30.5 × 0.70', left: 3 },
    ]);
  });

  it('thinner than half a millimetre fits once section and depth are known to a hundredth', () => {
    const thin = { ...groove, depthMm: 0.32, depthWithinMm: 0.01 };
    const stock = assortmentOf(book, [rings('30.5 × 0.42')], DAY);
    expect(chooseRing(thin, stock, null).best[0]?.fit.verdict).toBe('cannot say');
    expect(chooseRing({ ...thin, sectionWithinMm: 0.01 }, stock, null).best[0]?.fit.verdict).toBe('fits');
  });

  it('judges the one that went in by its size', () => {
    const job = takenIn('cell and reseal');
    job.add('seal.groove', groove);
    expect(fittedRing(job.state())).toBeNull();
    job.add('seal.gasket', { ...gasket, size: '30.5 × 0.70' });
    expect(fittedRing(job.state())?.verdict).toBe('fits');
    job.add('seal.gasket', { ...gasket, size: '30.5 × 0.70', profile: 'shaped to the case' });
    expect(fittedRing(job.state())).toBeNull();
    // A flat ring has a width that its size does not tell.
    job.add('seal.gasket', { ...gasket, size: '30.5 × 0.70', profile: 'flat' });
    expect(fittedRing(job.state())).toBeNull();
  });
});

describe('dies', () => {
  it('are asked for backs that are pressed, and go by the back as it was measured', () => {
    const job = opened(takenIn('cell only'));
    expect(diesOf(job.state(), book, openingFor(job))?.verdict).toBe('not yet known');
    job.add('seal.press', samples['seal.press']);
    expect(diesOf(job.state(), book, openingFor(job))?.verdict).toBe('press');
    const unseen = takenIn('cell only');
    const guessed = { ...openingFor(unseen), kindKnown: false };
    expect(diesOf(unseen.state(), book, guessed)).toBeNull();
    const screwed = opened(takenIn('cell only'), 'screwed, notched');
    expect(diesOf(screwed.state(), book, openingFor(screwed))).toBeNull();
  });
});

describe('the order of closing', () => {
  it('goes by how it was opened, and by what came off', () => {
    const job = opened(takenIn('cell only'));
    const off = job.add('open.part', {
      part: 'spacer',
      position: 'on the bridge',
      count: 1,
      serves: [],
      step: '',
    });
    const lost = job.add('open.part', { part: 'screw', position: '', count: 1, serves: [], step: '' });
    job.add('open.part-settled', { partEntryId: lost.id, outcome: 'lost', note: '' });
    const steps = closingOf(job.state(), openingFor(job), null, context);
    const parts = steps.flatMap(({ partIds }) => partIds);
    expect(parts).toContain(off.id);
    expect(parts).not.toContain(lost.id);
    expect(steps.find(({ id }) => id === 'ring')?.waits).not.toBeNull();
    const screwed = opened(takenIn('cell only'), 'screwed, notched');
    expect(closingOf(screwed.state(), openingFor(screwed), null, context).map(({ id }) => id)).toContain(
      'start',
    );
  });
});

describe('opening again in the same visit', () => {
  it('voids the ring, the seals inside and the steps, and keeps what was measured', () => {
    const job = opened(takenIn('cell and reseal'));
    job.add('seal.groove', samples['seal.groove']);
    job.add('seal.gasket', gasket);
    job.add('seal.inside', samples['seal.inside']);
    job.add('seal.steps', samples['seal.steps']);
    job.add('seal.closed', { ...samples['seal.closed'], seamEven: true, raisedClocks: [], interim: false });
    const asked = () =>
      job.state().progress.flatMap((stage) => stage.missing.map(({ requirement }) => requirement as string));
    expect(activeRing(job.state().facts)).not.toBeNull();
    expect(asked()).not.toContain('seal.gasket');
    job.add('open.back', samples['open.back']);
    const { facts } = job.state();
    expect([activeRing(facts), facts.insideSeals, facts.closed]).toEqual([null, null, null]);
    expect(asked()).toContain('seal.gasket');
    job.add('seal.gasket', gasket);
    expect(asked()).not.toContain('seal.gasket');
    expect(facts.closingDone.size).toBe(0);
    expect(facts.groove).not.toBeNull();
  });
});

describe('a job signed before rings were voided', () => {
  it('stays whole', () => {
    const job = opened(takenIn('cell and reseal'));
    job.add('seal.gasket', gasket);
    job.add('seal.closed', { ...samples['seal.closed'], seamEven: true, raisedClocks: [], interim: false });
    job.add('open.back', samples['open.back']);
    job.add('handback.signed', samples['handback.signed']);
    const seal = job.state().progress.find(({ stage }) => stage === 'seal');
    expect(seal?.missing.map(({ requirement }) => requirement)).not.toContain('seal.gasket');
    expect(job.state().facts.gasket).not.toBeNull();
  });
});

describe('seals counted at opening', () => {
  it('are asked for where an inner cover or a hatch has one, until somebody says', () => {
    const missing = (job: Logbook): string[] =>
      job.state().progress.flatMap((stage) => stage.missing.map(({ requirement }) => requirement as string));
    const job = opened(takenIn('cell and reseal'));
    job.add('open.seals', { rim: 1, innerCover: 0, hatch: 0 });
    expect(missing(job)).not.toContain('seal.inside');
    job.add('open.seals', { rim: 1, innerCover: 1, hatch: 0 });
    expect(missing(job)).toContain('seal.inside');
    job.add('seal.inside', { innerCover: 'inspected', hatch: 'none there' });
    expect(missing(job)).not.toContain('seal.inside');
  });
});
