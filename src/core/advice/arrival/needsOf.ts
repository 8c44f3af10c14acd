import type { Book } from '../../craft/book';
import { closingSchool } from '../../craft/cases';
import { opens } from '../../craft/opening';
import { countOf } from '../../craft/parts';
import type { Policy } from '../../craft/policy';
import type { Lot, SupplierRecord } from '../../craft/stock';
import { isLeaked, type JobState, type Payloads } from '../../logbook';
import { fitForWell, placeWants } from '../cell';
import { kitsHere } from '../charging';
import { type Opening, openingOf } from '../opening';
import { ringOffers } from '../seal';
import { supplyOf } from '../supply';
import type { WatchHistory } from '../watches';

/** One thing this watch will need once it is opened, held against stock and tools. */
export interface Need {
  readonly of: 'opener' | 'cell' | 'ring' | 'closing tool';
  readonly status: 'available' | 'not available' | 'not needed' | 'not known yet';
  /** What it is, and where it lies or why nobody knows. */
  readonly words: string;
  /** What would have to be ordered; null where nothing lacks. */
  readonly order: Payloads['arrive.parts-request']['lines'][number] | null;
}

interface NeedsQuestion {
  readonly state: JobState;
  readonly history: WatchHistory | null;
  readonly book: Book;
  readonly lots: readonly Lot[];
  readonly records: readonly SupplierRecord[];
  readonly policy: Policy;
  /** A calendar day. */
  readonly day: string;
}

function openerNeed({ kindKnown, opener }: Opening): Need {
  const need = { of: 'opener', order: null } as const;
  if (!kindKnown) return { ...need, status: 'not known yet', words: 'the kind of back is not recorded' };
  if (opener.verdict === 'refer or buy')
    return {
      ...need,
      status: 'not available',
      words: opener.toBuy ?? opener.opener,
      order: opener.toBuy === null ? null : { what: opener.toBuy.replace(/^an? /, ''), count: 1 },
    };
  return opens(opener)
    ? { ...need, status: 'available', words: opener.opener }
    : {
        ...need,
        status: 'not known yet',
        words: `${opener.opener}: ${(opener.reasons[0] ?? '').replace(/\.$/, '')}`,
      };
}

function closingNeed({ kindKnown, back, opener }: Opening, { policy, book }: NeedsQuestion): Need {
  const need = { of: 'closing tool', order: null } as const;
  if (!kindKnown) return { ...need, status: 'not known yet', words: 'the kind of back is not recorded' };
  if (closingSchool(back.kind) === 'snapOn')
    return !policy.schools.snapOn.includes('press') || book.pressDies.length > 0
      ? { ...need, status: 'available', words: policy.schools.snapOn }
      : {
          ...need,
          status: 'not available',
          words: 'press dies (this shop presses snap-on backs)',
          order: { what: 'press die', count: 2 },
        };
  return opens(opener)
    ? { ...need, status: 'available', words: 'the opener also closes it' }
    : { ...need, status: 'not known yet', words: 'the opener also closes it' };
}

/** The kit that renews an accumulator, in case the charge does not hold. */
function kitNeed({ state, lots, day }: NeedsQuestion): Need {
  const need = { of: 'cell', order: null } as const;
  const charge = state.calibre?.charge ?? null;
  const kitCode = charge?.kitCode ?? null;
  if (charge === null || kitCode === null)
    return { ...need, status: 'not known yet', words: 'accumulator kit' };
  const words = `kit ${kitCode}, in case the charge does not hold`;
  return kitsHere(charge, lots, day).some(({ left }) => left > 0)
    ? { ...need, status: 'available', words }
    : { ...need, status: 'not available', words, order: { what: `kit ${kitCode}`, count: 1 } };
}

/** Cells or the kit: by the movement where it is named, each code with as many as its wells take. */
function cellNeeds(question: NeedsQuestion): readonly Need[] {
  const { state, book, lots, records, policy, day } = question;
  const need = { of: 'cell', order: null } as const;
  const asked = state.required.some((each) => each === 'cell.fitted' || each === 'cell.charged');
  if (!asked)
    return state.wells.some(
      ({ found, fitted }) => found !== null && isLeaked(found.payload) && fitted === null,
    )
      ? [
          {
            ...need,
            status: 'not known yet',
            words: 'the cell found has leaked, but the service does not include a new cell',
          },
        ]
      : [{ ...need, status: 'not needed', words: 'this service does not change the cell' }];
  const supply = supplyOf(state, book);
  if (supply.verdict === 'rechargeable') return [kitNeed(question)];
  if (supply.againstPrimary.length > 0)
    return [
      {
        ...need,
        status: 'not known yet',
        words:
          supply.verdict === 'contradicted'
            ? 'the evidence disagrees whether it runs on a cell or an accumulator'
            : 'it may run on an accumulator, so a cell or a kit is not chosen yet',
      },
    ];
  const wanted = new Map<string, number>();
  for (const well of state.wells) {
    // By the book, or by what was found, printed and measured.
    const code =
      well.fitted === null && well.putBack === null
        ? (placeWants(state, well, book)?.wanted.code ?? null)
        : null;
    if (code !== null) wanted.set(code, (wanted.get(code) ?? 0) + 1);
  }
  if (wanted.size === 0) {
    const done = state.wells.every(({ fitted, putBack }) => fitted !== null || putBack !== null);
    return [
      done
        ? { ...need, status: 'not needed', words: 'its cells are fitted' }
        : {
            ...need,
            status: 'not known yet',
            words: 'not known until the movement or the old cell is identified',
          },
    ];
  }
  return [...wanted].map(([code, count]): Need => {
    const well = state.wells.find((each) => placeWants(state, each, book)?.wanted.code === code);
    const offers = well
      ? (fitForWell(state, well, { lots, records, book, policy, day, alkalineAgreed: false })?.offers ?? [])
      : [];
    const left = offers
      .filter(({ verdict }) => verdict === 'take')
      .reduce((sum, { lot }) => sum + lot.balance, 0);
    return left >= count
      ? { ...need, status: 'available', words: `${countOf(code, count)}, or an equal cell` }
      : {
          ...need,
          status: 'not available',
          words: `${countOf(code, count)}, and ${left === 0 ? 'none' : left} can be used`,
          order: { what: code, count: count - left },
        };
  });
}

function ringNeed({ state, book, lots, day }: NeedsQuestion): Need {
  const need = { of: 'ring', order: null } as const;
  const { caseType } = state;
  if (!state.required.includes('seal.gasket'))
    return { ...need, status: 'not needed', words: 'this service includes no ring' };
  const sizes = caseType ? book.gasketsOf(caseType.code).map(({ code }) => code) : [];
  const size = sizes[0] ?? caseType?.gasket ?? null;
  if (size === null) return { ...need, status: 'not known yet', words: 'the book has no ring for this case' };
  const there = ringOffers(state, book, lots, null, day).some(
    ({ lot, ofThisCase }) => ofThisCase || lot.code === size,
  );
  return there
    ? { ...need, status: 'available', words: size }
    : {
        ...need,
        status: 'not available',
        words: size,
        order: { what: `gasket ${size}`, count: 1 },
      };
}

/**
 * What this watch will need once it is open: what opens and closes it, its cells or kit, its ring, each from case,
 * movement and service, held against the shop's stock and tools. What nobody can know before it is opened is said to be
 * not known, and not ordered. Never throws. Source: bench practice.
 */
export function needsOf(question: NeedsQuestion): readonly Need[] {
  const { state, history, book, policy } = question;
  if (state.facts.decision !== null || state.facts.closed !== null) return [];
  const opening = openingOf({ state, history, tools: book, schools: policy.schools, typed: null });
  return [openerNeed(opening), ...cellNeeds(question), ringNeed(question), closingNeed(opening, question)];
}

/** The one request for everything that lacks. */
export function requestFor(needs: readonly Need[]): Payloads['arrive.parts-request']['lines'] {
  return needs.flatMap(({ order }) => order ?? []);
}

/** How all of it stands together, in a few words. */
export function needsInWords(needs: readonly Need[]): string {
  const lacking = requestFor(needs).length;
  if (lacking > 0) return `${lacking} to order`;
  switch (worstOf(needs)) {
    case 'not available':
      return 'Something is missing';
    case 'not known yet':
      return 'Nothing known to be missing';
    default:
      return 'Nothing is missing';
  }
}

/** The worst of what is said of one kind of thing, as the record of arrival keeps it. */
export function availability(needs: readonly Need[], of: Need['of']): Need['status'] {
  return worstOf(needs.filter((need) => need.of === of));
}

/** The worst status among some needs; `not needed` where there is none. */
export function worstOf(needs: readonly Need[]): Need['status'] {
  const statuses = needs.map(({ status }) => status);
  return (
    (['not available', 'not known yet', 'available'] as const).find((each) => statuses.includes(each)) ??
    'not needed'
  );
}
