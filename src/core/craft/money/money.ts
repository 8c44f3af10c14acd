const DIGITS = 2;

/** How many digits a currency has after its point: two for EUR, none for JPY. */
function digitsOf(currency: string): number {
  const { maximumFractionDigits } = new Intl.NumberFormat('en', {
    style: 'currency',
    currency,
  }).resolvedOptions();
  return maximumFractionDigits ?? DIGITS;
}

/** A sum of minor units without its currency, e.g. `14.00`, with a true minus sign. */
export function amount(minor: number, digits = DIGITS): string {
  if (!Number.isFinite(minor)) return 'no sum';
  return new Intl.NumberFormat('en', {
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
    useGrouping: false,
  })
    .format(minor / 10 ** digits)
    .replace('-', '−');
}

/**
 * A sum of minor units in its currency, e.g. `14.00 EUR`, or `1400 JPY` where a currency has no minor unit. `currency` is
 * its ISO 4217 code.
 */
export function money(minor: number, currency: string): string {
  return `${amount(minor, digitsOf(currency))} ${currency}`;
}
