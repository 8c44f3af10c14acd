import { figure, type Judged } from '../craft/judgement';
import { bareCode } from '../craft/movements';
import { type Part, partNamedIn, PROVED_BY, provedWhenOut, type Served, wantsNoting } from '../craft/parts';
import type { StageId } from '../craft/policy';
import type { ProofResult } from '../craft/setting';
import type { JobFacts, Payloads } from './entry';
import { lastReading } from './facts/check';
import { PART_OUTCOMES, type PartOff, type PartOutcome } from './facts/tray';

/** A proof that a part asks for, because it was lost or replaced. */
export interface PartProof {
  readonly served: Served;
  readonly stage: StageId;
  /** What is wanted, and why. */
  readonly words: string;
  readonly met: boolean;
  /** Asked for because a part was out and is back, nothing of it being lost or new. */
  readonly onlyOut: boolean;
}

const STAGE_OF: Readonly<Record<Served, StageId>> = {
  running: 'set',
  current: 'check',
  setting: 'set',
  date: 'set',
  light: 'set',
  alarm: 'set',
  'digital display': 'set',
  pushers: 'set',
  bracelet: 'set',
  water: 'test',
};

/** When each was proved last, or null. A proof tells what it found: that it does not work is one, too. */
const PROVED_AT: Readonly<Record<Served, (facts: Readonly<JobFacts>) => string | null>> = {
  running: ({ runs, watched, proving }) =>
    [runs, watched?.ended, proving?.ended].reduce<string | null>(
      (last, entry) => (entry && (last === null || entry.occurredAt > last) ? entry.occurredAt : last),
      null,
    ),
  current: (facts) => lastReading(facts, 'currentUA')?.occurredAt ?? null,
  setting: (facts) => outsideAt(facts, 'crown in every position'),
  date: (facts) => functionAt(facts, 'date'),
  light: (facts) => functionAt(facts, 'light'),
  alarm: (facts) => functionAt(facts, 'alarm'),
  'digital display': (facts) => functionAt(facts, 'digital display'),
  pushers: (facts) => outsideAt(facts, 'pushers'),
  bracelet: (facts) => outsideAt(facts, 'bracelet seated, gentle pull'),
  water: ({ tests }) => tests.at(-1)?.occurredAt ?? null,
};

/** What the watch has not was not tried: a part that served it was lost all the same. */
const tried = (result: ProofResult | undefined): boolean =>
  result !== undefined && result !== 'not applicable';

function functionAt(
  { functions }: Readonly<JobFacts>,
  name: 'date' | 'light' | 'alarm' | 'digital display',
): string | null {
  return functions !== null && tried(functions.payload.proved[name]) ? functions.occurredAt : null;
}

function outsideAt(
  { outside }: Readonly<JobFacts>,
  name: 'crown in every position' | 'pushers' | 'bracelet seated, gentle pull',
): string | null {
  return outside !== null && tried(outside.payload.proved[name]) ? outside.occurredAt : null;
}

/** Parts that go back, or are back, and of which nobody noted where they sat. */
export function positionsToNote(facts: Readonly<JobFacts>): readonly PartOff[] {
  return [...facts.parts.values()].filter(
    ({ off, settled }) =>
      wantsNoting(off.payload) && (settled === null || settled.payload.outcome === 'back in place'),
  );
}

/** Parts that came off and were settled so. */
export function partsSettledAs(
  facts: Pick<Readonly<JobFacts>, 'parts'>,
  ...outcomes: readonly Payloads['open.part-settled']['outcome'][]
): readonly PartOff[] {
  return [...facts.parts.values()].filter(
    ({ settled }) => settled !== null && outcomes.includes(settled.payload.outcome),
  );
}

/** A part that was out and is back, or lay above a cell that was changed: since when it has to be proved again. */
interface WasOut {
  readonly part: Part;
  readonly backAt: string;
}

/** Parts that were out and are back: by the tray, or because they lie above a cell that went in. */
export function partsThatWereOut({
  parts,
  above,
  cellsFitted,
  putBack,
}: Pick<Readonly<JobFacts>, 'parts' | 'above' | 'cellsFitted' | 'putBack'>): readonly WasOut[] {
  const worked = [...cellsFitted.values(), ...putBack.values()].map(({ occurredAt }) => occurredAt).sort();
  const lastWorked = worked.at(-1);
  return [
    ...[...parts.values()].flatMap(({ off, settled }) =>
      settled?.payload.outcome === 'back in place'
        ? [{ part: off.payload.part, backAt: settled.occurredAt }]
        : [],
    ),
    ...(lastWorked === undefined
      ? []
      : (above?.payload.above ?? []).map((part) => ({ part, backAt: lastWorked }))),
  ];
}

/**
 * What must be proved because a part was lost or replaced: each function it serves, once it was settled; and what a part that
 * was merely out serves, where it may be back wrongly (a light module, a buzzer spring). Each proof stands once, with the part
 * that asks for it first. Source: bench practice.
 */
export function partProofs(facts: Readonly<JobFacts>): readonly PartProof[] {
  const proofs = new Map<Served, PartProof>();
  for (const { part, backAt } of partsThatWereOut(facts))
    for (const served of provedWhenOut(part)) {
      const provedAt = PROVED_AT[served](facts);
      const met = provedAt !== null && provedAt >= backAt;
      const known = proofs.get(served);
      if (known && !(known.met && !met)) continue;
      proofs.set(served, {
        served,
        stage: STAGE_OF[served],
        words: `${PROVED_BY[served]}, since the ${part} was out`,
        met,
        onlyOut: true,
      });
    }
  for (const { off, settled } of partsSettledAs(facts, 'lost', 'replaced')) {
    for (const served of off.payload.serves) {
      // Closed for the time being nothing is tested; the follow-up job is.
      if (served === 'water' && facts.closed?.payload.interim) continue;
      // A ring is renewed at closing, and that is its proof; what else keeps water out is tested.
      const ring = off.payload.part === 'gasket' && served === 'water';
      const renewedAt = ring && facts.gasket?.payload.state === 'renewed' ? facts.gasket.occurredAt : null;
      const provedAt = PROVED_AT[served](facts) ?? renewedAt;
      const met = provedAt !== null && settled !== null && provedAt >= settled.occurredAt;
      const known = proofs.get(served);
      if (known && !(known.met && !met)) continue;
      proofs.set(served, {
        served,
        stage: STAGE_OF[served],
        words: `${ring ? 'new ring, or pressure test' : PROVED_BY[served]}, since the ${off.payload.part} was ${settled?.payload.outcome ?? ''}`,
        met,
        onlyOut: false,
      });
    }
  }
  return [...proofs.values()];
}

/**
 * The way back: what still lies on the tray, the last off first, since what came off last lay deepest. Every part that
 * came off and is not accounted for stands in it once.
 */
export function wayBack(facts: Readonly<JobFacts>): readonly PartOff[] {
  return [...facts.parts.values()].filter(({ settled }) => settled === null).reverse();
}

/** What was lost and is not on the parts request of this job yet, kind by kind, and how many of each. */
export function partsToOrder(
  facts: Readonly<JobFacts>,
): readonly { readonly what: Part; readonly count: number }[] {
  const wanted = new Map<Part, number>();
  const add = (part: Part, count: number): void => void wanted.set(part, (wanted.get(part) ?? 0) + count);
  for (const { off } of partsSettledAs(facts, 'lost')) add(off.payload.part, off.payload.count);
  for (const { what, count } of facts.partsRequest?.payload.lines ?? []) {
    const part = partNamedIn(what);
    if (part !== null && wanted.has(part)) add(part, -count);
  }
  return [...wanted].filter(([, count]) => count > 0).map(([what, count]) => ({ what, count }));
}

export type BackPairing = Judged<'not asked' | 'paired' | 'exchanged' | 'not yet known' | 'does not match'>;

/**
 * Is the back that goes on this watch's own? Asked where another watch lay open at the same time and either carries a
 * serial inside its back: what is read in the back at closing against what was read at opening, and against the other's.
 * Spaces, dashes and case do not count. Source: bench practice.
 */
export function pairBack(facts: Readonly<JobFacts>): BackPairing {
  const judged = (verdict: BackPairing['verdict'], ...reasons: string[]): BackPairing => ({
    verdict,
    reasons,
    working: [],
  });
  const { insideSerial, together, paired } = facts;
  const own = insideSerial?.payload.serial ?? '';
  const others = together.map(({ payload }) => payload);
  if (!others.some(({ otherSerial }) => otherSerial !== '') && (own === '' || others.length === 0))
    return judged('not asked', 'No other watch with a serial in its back was open at the same time.');
  const open = `Open together with ${others.map(({ otherTicket }) => otherTicket).join(', ')}.`;
  if (!paired)
    return judged(
      'not yet known',
      `${open} Read the serial in the back when you fit it${own === '' ? '' : `: ${own} is expected`}.`,
    );
  const read = bareCode(paired.payload.inBack);
  if (read === bareCode(own)) return judged('paired', 'The back fitted is the one that was removed.');
  const other = others.find(({ otherSerial }) => otherSerial !== '' && bareCode(otherSerial) === read);
  return other
    ? judged(
        'exchanged',
        `That back belongs to ${other.otherTicket}: the two backs are exchanged. Open both watches again.`,
      )
    : judged(
        'does not match',
        `${own === '' ? 'No serial was read in this back at opening' : `${own} was read at opening`}, ${paired.payload.inBack === '' ? 'none' : paired.payload.inBack} at closing. Check the back again.`,
      );
}

/** Seals counted at opening that are not the seam's: of an inner cover and of a hatch. */
export function sealsInside({ seals }: Pick<Readonly<JobFacts>, 'seals'>): number {
  return (seals?.payload.innerCover ?? 0) + (seals?.payload.hatch ?? 0);
}

/** Where what became of the seals inside is at odds with how many were counted; empty where it is not. */
export function insideContradictions(
  said: Payloads['seal.inside'],
  { seals }: Pick<Readonly<JobFacts>, 'seals'>,
): readonly { readonly path: keyof Payloads['seal.inside']; readonly reason: string }[] {
  if (seals === null) return [];
  return (['innerCover', 'hatch'] as const).flatMap((path) => {
    const words = path === 'hatch' ? 'of a hatch' : 'of an inner cover';
    const counted = seals.payload[path];
    if (counted > 0 && said[path] === 'none there')
      return [
        {
          path,
          reason: `${counted === 1 ? `1 seal ${words} was` : `${figure(counted, 0)} seals ${words} were`} counted at opening, but none is recorded now. Both cannot be true. Correct the wrong one.`,
        },
      ];
    return counted === 0 && said[path] === 'inspected'
      ? [
          {
            path,
            reason: `No seal ${words} was counted at opening, but one is recorded as inspected. Both cannot be true. Correct the wrong one.`,
          },
        ]
      : [];
  });
}

/** What can be said to have become of a part: while it lies on the tray any, of a lost one that it was replaced or found. */
export function outcomesFor({ settled }: Pick<PartOff, 'settled'>): readonly PartOutcome[] {
  if (settled === null) return PART_OUTCOMES;
  return settled.payload.outcome === 'lost' ? ['replaced', 'back in place'] : [];
}

/** The parts request of a job with what was lost since added to it. */
export function requestWith(
  request: Payloads['arrive.parts-request'] | null,
  lost: Payloads['arrive.parts-request']['lines'],
): Payloads['arrive.parts-request'] {
  return {
    lines: [...(request?.lines ?? []), ...lost],
    supplier: request?.supplier ?? '',
    expectedOn: request?.expectedOn ?? null,
  };
}
