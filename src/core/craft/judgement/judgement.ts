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

/** What stands where a figure is none. */
const NO_FIGURE = 'no number';

/** Formats a figure for reasons and working: at most `digits` decimals, no trailing zeros, a true minus sign. */
export function figure(value: number, digits = 2): string {
  // Nothing that is none is shown as a figure.
  if (!Number.isFinite(value)) return NO_FIGURE;
  const fixed = value.toFixed(Math.min(20, Math.max(0, Math.trunc(digits) || 0)));
  const trimmed = fixed.includes('.') ? fixed.replace(/\.?0+$/, '') : fixed;
  return (trimmed === '-0' ? '0' : trimmed).replace('-', '−');
}

/** A probability in words that do not claim more than they should: `97.2 %`, `over 99 %`, `under 1 %`. */
export function percent(probability: number): string {
  if (!Number.isFinite(probability)) return NO_FIGURE;
  if (probability > 0.99) return 'over 99 %';
  if (probability < 0.01) return 'under 1 %';
  return `${figure(probability * 100, 1)} %`;
}

/** A figure as it was given, and what it has to be before anything is reckoned with it. */
export interface GivenFigure<Path extends string = string> {
  readonly path: Path;
  /** What it is called, as a sentence begins: `The pitch circle`. */
  readonly what: string;
  /** Null: not given, and nothing to say of it. */
  readonly value: number | null | undefined;
  readonly unit: string;
  /** More than this; or from this on. */
  readonly over?: number;
  readonly from?: number;
  readonly to?: number;
}

/**
 * Which figures nothing can be reckoned with, each by its name, with the range it has to be in: one that is no number, has no
 * end, or lies outside what can be. Empty where all are sound.
 */
export function invalidFigures<Path extends string>(
  figures: readonly GivenFigure<Path>[],
): readonly { readonly path: Path; readonly reason: string }[] {
  return figures.flatMap(({ path, what, value, unit, over, from, to }) => {
    if (value === null || value === undefined) return [];
    const range = [
      ...(over === undefined ? [] : [`above ${figure(over)}`]),
      ...(from === undefined ? [] : [`of at least ${figure(from)}`]),
      ...(to === undefined ? [] : [`up to ${figure(to)}`]),
    ].join(' and ');
    const ask = `Enter a value ${range}${unit && ` ${unit}`}.`;
    if (!Number.isFinite(value)) return [{ path, reason: `${what} is not a number. ${ask}` }];
    return (over !== undefined && value <= over) ||
      (from !== undefined && value < from) ||
      (to !== undefined && value > to)
      ? [{ path, reason: `${what} cannot be ${figure(value)}${unit && ` ${unit}`}. ${ask}` }]
      : [];
  });
}

/** Lengths of a watch: each over 0, and none over what a watch comes to, mm. */
const MOST_OF_A_WATCH_MM = 150;

/** Lengths that cannot be, each by its name: no number, 0 or less, or larger than any watch. */
export function invalidLengths<Path extends string>(
  lengths: readonly (readonly [Path, string, number | null | undefined])[],
): readonly { readonly path: Path; readonly reason: string }[] {
  return invalidFigures(
    lengths.map(([path, what, value]) => ({
      path,
      what,
      value,
      unit: 'mm',
      over: 0,
      to: MOST_OF_A_WATCH_MM,
    })),
  );
}
