/** Keys closer together than this come from a device, not from a hand. */
export const DEVICE_GAP_MS = 30;
/** A shortcut waits this long, to see whether it begins a burst. */
const SHORTCUT_MS = 45;

/** A digit is a shortcut and begins a figure: taken for a shortcut, the figure would be lost. */
const DIGIT_MS = 120;

/**
 * A burst is given longer: a busy machine may hand its keys over late, and Enter usually ends it anyway. So is a key
 * that is no shortcut: nobody waits for it, and what it begins would be read without its first sign.
 */
const BURST_MS = 300;

/** How long silence must last after this key before the run it belongs to is over, in ms. */
export function settleMs(
  key: string,
  { shortcut, inBurst }: { shortcut: boolean; inBurst: boolean },
): number {
  if (inBurst || !shortcut) return BURST_MS;
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

  /** Takes a key. Gives the runs that this key shows to be over: each earlier key of a hand. */
  press(key: string, atMs: number): KeyRun[] {
    const gap = atMs - this.lastMs;
    const before = this.keys.length > 0 && gap >= DEVICE_GAP_MS ? this.end() : [];
    this.keys.push(key);
    this.lastMs = atMs;
    return before;
  }

  /** Whether the keys so far look like a device's: at least two, all close together. */
  get looksLikeDevice(): boolean {
    return this.keys.length > 1;
  }

  /** Ends the run: by silence or by Enter. */
  end(): KeyRun[] {
    const keys = this.keys;
    this.keys = [];
    if (keys.length === 0) return [];
    if (keys.length === 1) return [{ from: 'hand', key: keys[0] as string }];
    return [{ from: 'device', text: keys.join('') }];
  }
}
