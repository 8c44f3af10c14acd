/** One ligne in millimetres, the movement maker's unit (trade definition, twelfth of the French inch). */
export const LIGNE_MM = 2.2558;

/** Lignes to millimetres. */
export function mmFromLignes(lignes: number): number {
  return lignes * LIGNE_MM;
}

/**
 * Millimetres as lignes to the nearest quarter, as movement sizes are spoken: 23.7 mm → `10½‴`.
 * Sizes under an eighth of a ligne come back as `0‴`, what is no size as `no size`.
 */
export function formatLignes(mm: number): string {
  if (!(mm >= 0 && mm < Infinity)) return 'no size';
  const quarters = Math.round((mm / LIGNE_MM) * 4);
  const whole = Math.floor(quarters / 4);
  const fraction = ['', '¼', '½', '¾'][quarters % 4];
  return `${whole === 0 && fraction ? '' : whole}${fraction}‴`;
}
