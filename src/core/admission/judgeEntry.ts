import { capital } from '../craft/judgement';
import type { Lot } from '../craft/stock';
import {
  type Entry,
  entryInWords,
  type EntryKind,
  type EntryOf,
  type JobContext,
  type JobState,
  openDrops,
  wellOf,
} from '../logbook';
import { ADMITTED, type Admission, type Judge, type Question, refuse } from './admission';
import { benchJudges } from './bench';
import { cellJudges } from './cell';
import { judgeCorrection } from './corrections';
import { handbackJudges } from './handback';
import { judgeAhead } from './times';

/** A judge a kind; what has none is always admitted. */
const judges: { readonly [K in EntryKind]?: Judge<K> } = {
  ...benchJudges,
  ...cellJudges,
  ...handbackJudges,
};

function judgeOf<K extends EntryKind>(entry: EntryOf<K>): Judge<K> | undefined {
  return judges[entry.kind];
}

/** What must not be done while a dropped cell lies where nobody knows. */
const PAUSED_BY_A_DROP: readonly EntryKind[] = [
  'cell.fitted',
  'cell.put-back',
  'cell.accumulator',
  'seal.closed',
  'handback.signed',
];

function judgePause({ kind }: Entry, { state }: Question): Admission | null {
  const [drop] = PAUSED_BY_A_DROP.includes(kind) ? openDrops(state.facts) : [];
  return drop
    ? refuse(
        [`${capital(drop.dropped.payload.what)} was dropped and is not found yet.`],
        'Find the cell. If you cannot find it, report the loss to the person in charge. Record which of the two you did. A swallowed cell can kill a child or an animal within hours.',
      )
    : null;
}

/** What is of one cell: with several, it says of which. */
const OF_ONE_CELL: readonly EntryKind[] = [
  'cell.found',
  'cell.fitted',
  'cell.put-back',
  'cell.old-settled',
  'cell.well-measured',
];

/** What names a place the movement has not, or none where it has several, would stand at no cell and be seen nowhere. */
function judgePlace(entry: Entry, { state }: Question): Admission | null {
  const { kind, well, supersedes, withdraws } = entry;
  const { places } = state.facts;
  const named = places && withdraws === places.id ? [places.payload.first, places.payload.second] : [];
  const atOne = state.activeEntries.find((each) => each.well !== null && named.includes(each.well));
  if (atOne)
    return refuse(
      [`A record exists at “${atOne.well}”: ${entryInWords(atOne)}.`],
      'Withdraw the record at one of the two places first.',
    );
  // A correction may take back what an earlier guess at the movement brought about.
  if (supersedes.length > 0 || withdraws !== null) return null;
  if (well === null && !OF_ONE_CELL.includes(kind)) return null;
  if (state.wells.some(({ name }) => name === wellOf(entry))) return null;
  return refuse(
    [
      well === null
        ? 'This movement has several cell places, but the entry names none.'
        : `This movement has no place for a cell called “${well}”.`,
    ],
    `Its places: ${state.wells.map(({ name }) => name).join(', ')}.`,
  );
}

/**
 * May this entry be written to a job that stands so? What was found or done is always admitted; refused is only
 * what must not be done: fitting a cell that would harm, from a lot past its date, signing a job that is not
 * ready or has moved on, correcting an entry of another job or kind. `lots` is asked only when the stock matters.
 */
export function judgeEntry(
  entry: Entry,
  state: JobState,
  known: readonly Entry[],
  lots: () => readonly Lot[],
  context: JobContext,
): Admission {
  const question = { state, known, lots, context };
  return (
    judgeAhead(entry.occurredAt, context.nowUtc) ??
    judgeCorrection(entry, question) ??
    judgePause(entry, question) ??
    judgePlace(entry, question) ??
    judgeOf(entry)?.(entry, question) ??
    ADMITTED
  );
}
