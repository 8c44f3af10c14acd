/** A ring the shop knows: its size, and the cases it seals. */
export interface Gasket {
  readonly id: string;
  /** Inside × section, e.g. `30.5 × 0.70`. */
  readonly code: string;
  readonly profile: 'round' | 'flat' | 'L-shaped' | 'shaped to the case';
  readonly insideMm: number;
  /** Of a flat ring its thickness. */
  readonly sectionMm: number;
  /** Of a flat ring, across; null for any other, and where nobody entered it. */
  readonly widthMm: number | null;
  readonly material: string;
  /** Codes of the cases it seals. */
  readonly caseCodes: readonly string[];
}
