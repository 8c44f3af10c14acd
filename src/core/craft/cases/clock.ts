import { figure } from '../judgement';

/** From which side a clock position is seen: what is at 3 from the dial is at 9 from behind. */
export const VIEWS = ['the dial', 'behind'] as const;
export type View = (typeof VIEWS)[number];

/**
 * A clock position (above 0, up to 12) as it is seen from another side: mirrored at the line from 12 to 6, 12 − k.
 * Source: geometry of a case turned over its side.
 *
 * @example
 * turnClock(2, 'the dial', 'behind') // 10
 */
export function turnClock(clock: number, from: View, to: View): number {
  return from === to ? clock : (12 - (clock % 12)) % 12 || 12;
}

/** A position in words, with the side it is seen from; null: nobody noted the side. */
export function clockWords(clock: number | readonly number[], from: View | null): string {
  const at = typeof clock === 'number' ? [clock] : clock;
  return `${at.map((each) => figure(each, 1)).join(', ')} o’clock, ${from === null ? 'side not noted' : `seen from ${from}`}`;
}

/** How far two positions of one view are apart the shorter way round, in hours. */
export function clockDistance(a: number, b: number): number {
  const apart = Math.abs(a - b) % 12;
  return Math.min(apart, 12 - apart);
}
