/**
 * The shape every judgement of the core shares. A verdict is a value, never an exception: an ordinary *no*
 * carries the reasons for it and the arithmetic it rests on, so that a screen can show its working.
 */
export interface WorkingLine {
  /** What is being worked out, in the field's words. */
  readonly what: string;
  /** The formula or rule, as a technician would write it down. */
  readonly rule: string;
  /** The figures put in and what came out. */
  readonly figures: string;
  /** Where the rule comes from. */
  readonly source?: string;
}

export interface Judged<V extends string> {
  readonly verdict: V;
  readonly reasons: readonly string[];
  readonly working: readonly WorkingLine[];
}

/** A text that begins a sentence. */
export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** Formats a figure for reasons and working: at most `digits` decimals, no trailing zeros, a true minus sign. */
export function figure(value: number, digits = 2): string {
  const fixed = value.toFixed(digits);
  const trimmed = fixed.includes('.') ? fixed.replace(/\.?0+$/, '') : fixed;
  return (trimmed === '-0' ? '0' : trimmed).replace('-', '−');
}

/** A probability in words that do not claim more than they should: `97.2 %`, `over 99 %`, `under 1 %`. */
export function percent(probability: number): string {
  if (probability > 0.99) return 'over 99 %';
  if (probability < 0.01) return 'under 1 %';
  return `${figure(probability * 100, 1)} %`;
}
