/** How much the server had told through its live stream when a reading began, as it says with every answer. */
export const NEWS_MARK = 'x-news';

interface Told {
  readonly server: string;
  readonly count: number;
}

function toldAt(mark: string): Told {
  const at = mark.lastIndexOf('-');
  return { server: mark.slice(0, at), count: Number(mark.slice(at + 1)) };
}

/** Marks of what was read before the stream stood; a reading that failed has none. */
let readAt = new Set<string | null>();
/** The mark as the stream stood last, and the one heard last. */
let stoodAt: string | null = null;
let heardAt: string | null = null;
let whenStale: () => void = () => undefined;

/** Says what to do where a reading turns out older than what the stream can tell. */
export function onStaleReading(act: () => void): void {
  whenStale = act;
}

/** Notes the mark of an answer; null where there was none. */
export function noteReading(mark: string | null): void {
  // Once the stream stands, it tells of what changes: only what failed is missed.
  if (heardAt === null || mark === null) readAt.add(mark);
  if (stoodAt === null || mark === null) return;
  const [began, stood] = [toldAt(mark), toldAt(stoodAt)];
  // It began before the stream stood, and what was told between was heard by nobody here.
  if (began.server !== stood.server || began.count < stood.count) whenStale();
}

/** Notes what the stream told. */
export function noteNews(mark: string): void {
  heardAt = mark;
}

/**
 * The stream stands, for the first time or again: whether everything that is known here is as it was when the server had
 * told so much, so that nothing was missed and nothing need be read again.
 */
export function standsAt(mark: string): boolean {
  const allRead =
    heardAt === null ? readAt.size === 1 && readAt.has(mark) : heardAt === mark && !readAt.has(null);
  readAt = new Set();
  stoodAt = mark;
  heardAt = mark;
  return allRead;
}
