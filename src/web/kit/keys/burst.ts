/** Keys closer together than this come from a device, not from a hand. */
export const DEVICE_GAP_MS = 30;
/** A shortcut waits this long, to see whether it begins a burst. */
const SHORTCUT_MS = 45;

/** A digit is a shortcut and begins a figure: taken for a shortcut, the figure would be lost. */
const DIGIT_MS = 120;

/** A burst is given longer: a busy machine may hand its keys over late, and Enter usually ends it anyway. */
const BURST_MS = 300;

/** How long silence must last after this key before the run it belongs to is over, in ms. */
export function settleMs(key: string, inBurst: boolean): number {
  if (inBurst) return BURST_MS;
  return /\d/.test(key) ? DIGIT_MS : SHORTCUT_MS;
}

/** What a run of keys turned out to be. */
export type KeyRun =
  { readonly from: 'hand'; readonly key: string } | { readonly from: 'device'; readonly text: string };

/**
 * Tells a device that types (caliper, barcode reader) from a hand, by the gaps between keys. Feed every printable
 * key with its time; ask for the run when it has settled or Enter ends it.
 */
export class BurstReader {
  private keys: string[] = [];
  private lastMs = -Infinity;
  /** A single key taken for a hand's after silence, while it is not known that nothing follows. */
  private alone: string | null = null;

  /** Takes a key. Gives the runs that this key shows to be over: each earlier key of a hand. */
  press(key: string, atMs: number): KeyRun[] {
    const gap = atMs - this.lastMs;
    const before = this.keys.length > 0 && gap >= DEVICE_GAP_MS ? this.end() : [];
    // Pressed close upon it and only handed over late, this key belongs to the one that seemed alone.
    if (this.alone !== null && gap < DEVICE_GAP_MS) this.keys.push(this.alone);
    this.alone = null;
    this.keys.push(key);
    this.lastMs = atMs;
    return before;
  }

  /** Whether the keys so far look like a device's: at least two, all close together. */
  get looksLikeDevice(): boolean {
    return this.keys.length > 1;
  }

  /** Ends the run by silence: should the rest of a burst still come, its first key is not lost to it. */
  settle(): KeyRun[] {
    const runs = this.end();
    const [run] = runs;
    this.alone = run?.from === 'hand' ? run.key : null;
    return runs;
  }

  /** Ends the run for good, as Enter does. */
  end(): KeyRun[] {
    this.alone = null;
    const keys = this.keys;
    this.keys = [];
    if (keys.length === 0) return [];
    if (keys.length === 1) return [{ from: 'hand', key: keys[0] as string }];
    return [{ from: 'device', text: keys.join('') }];
  }
}
