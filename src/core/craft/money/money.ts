/** How many digits a currency has after its point: two for EUR, none for JPY. */
function digitsOf(currency: string): number {
  return (
    new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2
  );
}

/**
 * A sum of minor units in its currency, e.g. `14.00 EUR`, or `1400 JPY` where a currency has none. `currency` is
 * its ISO 4217 code.
 */
export function money(minor: number, currency: string): string {
  const digits = digitsOf(currency);
  const sum = new Intl.NumberFormat('en', {
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
    useGrouping: false,
  }).format(minor / 10 ** digits);
  return `${sum} ${currency}`;
}
