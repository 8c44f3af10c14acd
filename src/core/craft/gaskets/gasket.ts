/** A ring the shop knows: its size, and the cases it seals. */
export interface Gasket {
  readonly id: string;
  /** Inside × section, e.g. `30.5 × 0.70`. */
  readonly code: string;
  readonly profile: 'round' | 'flat' | 'L-shaped' | 'shaped to the case';
  readonly insideMm: number;
  readonly sectionMm: number;
  readonly material: string;
  /** Codes of the cases it seals. */
  readonly caseCodes: readonly string[];
}
