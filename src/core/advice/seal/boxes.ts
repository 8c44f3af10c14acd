import { REORDER_UNDER } from '../../craft/stock';
import { assortmentOf, type RingToHave } from './sealing';

/** Rings of one section, as a box of the assortment holds them. */
export interface RingBox {
  readonly sectionMm: number;
  readonly rings: readonly RingToHave[];
}

/** The assortment by section, thinnest first, each box by inside diameter. */
export function ringBoxes(...of: Parameters<typeof assortmentOf>): readonly RingBox[] {
  const boxes = new Map<number, RingToHave[]>();
  for (const ring of assortmentOf(...of)) {
    const { sectionMm } = ring.size;
    boxes.set(sectionMm, [...(boxes.get(sectionMm) ?? []), ring]);
  }
  return [...boxes]
    .sort(([a], [b]) => a - b)
    .map(([sectionMm, rings]) => ({
      sectionMm,
      rings: [...rings].sort((a, b) => a.size.insideMm - b.size.insideMm),
    }));
}

/** Whether a ring is to be ordered: a case of the book wants its size, and fewer are left than of a cell would be. */
export function ringIsLow({ left, caseCodes }: Pick<RingToHave, 'left' | 'caseCodes'>): boolean {
  return caseCodes.length > 0 && left < REORDER_UNDER;
}
