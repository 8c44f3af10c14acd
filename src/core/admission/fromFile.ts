import { type Entry, type EntryKind, entryInWords, type JobState, stockMoves } from '../logbook';
import { ADMITTED, type Admission, refuse } from './admission';
import { judgeCorrection } from './corrections';
import { judgeAhead } from './times';

/** What says which cell is in the watch. */
const FITTINGS: readonly EntryKind[] = ['cell.fitted', 'cell.put-back', 'cell.accumulator'];

/**
 * May an entry that comes in a file be added to a job that is here, before it is judged like any other? `state` is the
 * job as this counter has it: a file can neither sign it nor take back what this counter fitted or took from its stock.
 */
export function judgeAddedByFile(entry: Entry, state: JobState): Admission {
  if (entry.kind === 'handback.signed')
    return refuse(
      [`It would sign a job of this counter as ${entry.payload.initials}.`],
      'Import the file as it was before signing. Then read the record and sign here.',
    );
  const moved = stockMoves(state);
  const targets = [...entry.supersedes, ...(entry.withdraws === null ? [] : [entry.withdraws])];
  const fitting = state.activeEntries.find(
    ({ id, kind }) => targets.includes(id) && (FITTINGS.includes(kind) || moved.has(id)),
  );
  return fitting
    ? refuse(
        [`It would withdraw a record of this counter: ${entryInWords(fitting)}.`],
        'If that record is wrong, correct it at this counter, where you can see the cell and the stock.',
      )
    : ADMITTED;
}

/** What a file says of the job its entries belong to. */
interface OfJob {
  readonly customerId: string;
  readonly watchId: string;
  readonly visitId: string;
}

/**
 * May entries stand as what another counter recorded of a job that is not here? That counter judged them by its own
 * book and stock; here only what holds at every counter is asked: they are received for the owner, watch and visit the
 * file names, and corrections name what came before, of their kind, and no signature. `unreadable` are ids that
 * counter could not read any more; none happened or was recorded ahead of this counter’s clock. Gives the first entry that may not, by its place.
 */
export function judgeHistory(
  entries: readonly Entry[],
  of: OfJob,
  unreadable: ReadonlySet<string>,
  { receivedAt, nowUtc }: { readonly receivedAt: string; readonly nowUtc: string },
): Admission & { readonly at: number } {
  if (!entries.some(({ kind }) => kind === 'arrive.received'))
    return {
      ...refuse(['The date of receipt is missing.'], 'Save the job file again at the other counter.'),
      at: 0,
    };
  const early = judgeAhead(receivedAt, nowUtc);
  if (early) return { ...early, at: 0 };
  const ids = new Set(entries.map(({ id }) => id));
  const dark = new Set([...unreadable].filter((id) => !ids.has(id)));
  for (const [at, entry] of entries.entries()) {
    const ahead =
      judgeAhead(entry.occurredAt, nowUtc) ??
      (entry.recordedAt === null ? null : judgeAhead(entry.recordedAt, nowUtc));
    if (ahead) return { ...ahead, at };
    if (
      entry.kind === 'arrive.received' &&
      (['customerId', 'watchId', 'visitId'] as const).some((id) => entry.payload[id] !== of[id])
    )
      return {
        ...refuse(
          ['The intake record names another owner, watch or visit than the file.'],
          'Save the job file again at the other counter.',
        ),
        at,
      };
    const named = [...entry.supersedes, ...(entry.withdraws === null ? [] : [entry.withdraws])];
    if (named.some((id) => dark.has(id))) continue;
    const judged = judgeCorrection(entry, { known: entries.slice(0, at) });
    if (judged) return { ...judged, at };
  }
  return { ...ADMITTED, at: -1 };
}
