/** Sums of squares and products of columns, row by row; the last row and column are those of what is to be explained. */
export interface Sums {
  readonly size: number;
  readonly values: Float64Array;
}

/** What was known of each column before: `weight` at its value `value`; a weight of 0 knows nothing. */
export interface Before {
  readonly weight: Float64Array;
  readonly value: Float64Array;
}

export interface Solution {
  readonly coefficients: Float64Array;
  /** Squares left over, those against what was known before with them. */
  readonly residual: number;
  readonly logDeterminant: number;
}

/** What a pivot must keep of its diagonal: below it a column says nothing of its own. */
const OWN_SHARE = 1e-12;

/**
 * Least squares from sums of products, with what was known of the columns before, by Cholesky's factors. A column that
 * says nothing of its own is left at nought. Source: normal equations of ridge regression.
 */
export function leastSquares(sums: Sums, before: Before): Solution {
  const size = sums.size - 1;
  const factor = new Float64Array(size * size);
  const forward = new Float64Array(size);
  // Every place read below exists: a look-up that could miss would cost more than the sum.
  const of = (values: Float64Array, place: number): number => values[place] as number;
  const at = (row: number, column: number): number => of(sums.values, row * sums.size + column);
  let logDeterminant = 0;
  let residual = at(size, size);
  for (let i = 0; i < size; i += 1) {
    const row = i * size;
    const weight = of(before.weight, i);
    residual += weight * of(before.value, i) ** 2;
    for (let j = 0; j < i; j += 1) {
      const pivot = of(factor, j * size + j);
      if (pivot === 0) continue;
      let left = at(i, j);
      for (let k = 0; k < j; k += 1) left -= of(factor, row + k) * of(factor, j * size + k);
      factor[row + j] = left / pivot;
    }
    const diagonal = at(i, i) + weight;
    let pivot = diagonal;
    for (let k = 0; k < i; k += 1) pivot -= of(factor, row + k) ** 2;
    if (!(pivot > OWN_SHARE * diagonal)) continue;
    logDeterminant += Math.log(pivot);
    factor[row + i] = Math.sqrt(pivot);
    let right = at(i, size) + weight * of(before.value, i);
    for (let k = 0; k < i; k += 1) right -= of(factor, row + k) * of(forward, k);
    forward[i] = right / of(factor, row + i);
    residual -= of(forward, i) ** 2;
  }
  const coefficients = new Float64Array(size);
  for (let i = size - 1; i >= 0; i -= 1) {
    const pivot = of(factor, i * size + i);
    if (pivot === 0) continue;
    let value = of(forward, i);
    for (let j = i + 1; j < size; j += 1) value -= of(factor, j * size + i) * of(coefficients, j);
    coefficients[i] = value / pivot;
  }
  return { coefficients, residual: Math.max(residual, 0), logDeterminant };
}
