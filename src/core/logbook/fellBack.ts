import type { Entry } from './entry';

/** What a watch showed that its charge did not last. */
type FellBackTo = 'low-supply steps' | 'does not run' | 'does not charge';

interface FellBack {
  readonly entry: Entry;
  readonly shows: FellBackTo;
}

/** What one entry tells of a charge: what it fell back to, `well` where it is as it should be, or that it was seen to run. */
function shownBy(entry: Entry): FellBackTo | 'well' | 'runs' | null {
  switch (entry.kind) {
    case 'check.looked':
      switch (entry.payload.shows) {
        case 'steps in twos or fours':
          return 'low-supply steps';
        case 'stands still':
        case 'display blank':
          return 'does not run';
        case 'runs as it should':
          return 'well';
        default:
          return null;
      }
    case 'cell.lit':
      switch (entry.payload.shows) {
        case 'low-supply steps':
          return 'low-supply steps';
        case 'flat':
          return 'does not run';
        case 'steps normally':
          return 'well';
        default:
          return null;
      }
    case 'cell.lit-seen':
      return entry.payload.stepsNormally ? 'well' : 'low-supply steps';
    case 'cell.accumulator':
      return 'well';
    case 'set.runs':
      return entry.payload.runs ? 'runs' : 'does not run';
    case 'set.run-ended':
      return entry.payload.stillRuns ? 'runs' : 'does not run';
    case 'set.functions':
      switch (entry.payload.proved.charging) {
        case 'does not work':
          return 'does not charge';
        case 'works':
          return 'well';
        default:
          return null;
      }
    default:
      return null;
  }
}

/**
 * What speaks against the last charge, after which the watch stepped normally: what it was seen to do since. Null where it was
 * not charged, the charge did not bring it back, nobody looked since, or it was seen well again. `standing`: the entries that
 * stand, in the order they count.
 */
export function fellBack(entries: readonly Entry[]): FellBack | null {
  const at = entries.findLastIndex(({ kind }) => kind === 'cell.charged');
  const charge = entries[at];
  if (charge?.kind !== 'cell.charged' || charge.payload.outcome !== 'steps normally') return null;
  let back: FellBack | null = null;
  for (const entry of entries.slice(at + 1)) {
    const shows = shownBy(entry);
    // A watch that steps in twos runs, too: only one that stood still is back by that.
    if (shows === 'well' || (shows === 'runs' && back?.shows === 'does not run')) back = null;
    else if (shows !== null && shows !== 'runs') back = { entry, shows };
  }
  return back;
}
