/** Keys closer together than this come from a device, not from a hand. */
export const DEVICE_GAP_MS = 30;
/** A single key waits this long, to see whether it begins a burst. */
export const SETTLE_MS = 45;

/** A burst is given longer: a busy machine may hand its keys over late, and Enter usually ends it anyway. */
export const BURST_SETTLE_MS = 300;

/** Whether a key is the sign a caliper's figure begins with. */
export function isSign(key: string): boolean {
  return key === '+' || key === '-';
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
