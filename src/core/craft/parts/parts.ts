import { figure } from '../judgement';
/** What may come off or out of a watch and lie on its tray. */
export const PARTS = [
  'spring bar',
  'bracelet pin',
  'back',
  'plate',
  'bezel',
  'hatch',
  'panel',
  'screw',
  'gasket',
  'inner cover',
  'adhesive',
  'movement',
  'movement ring',
  'light module',
  'spacer',
  'insulator',
  'cover',
  'spring',
  'buzzer spring',
  'pusher',
  'rotor',
  'wheel',
  'tab',
  'accumulator',
] as const;
export type Part = (typeof PARTS)[number];

/** What a part serves, and so what must be proved when it was lost or replaced. */
export const SERVED = [
  'running',
  'current',
  'setting',
  'date',
  'light',
  'alarm',
  'digital display',
  'pushers',
  'bracelet',
  'water',
] as const;
export type Served = (typeof SERVED)[number];

const SERVES: Readonly<Record<Part, readonly Served[]>> = {
  'spring bar': ['bracelet'],
  'bracelet pin': ['bracelet'],
  back: ['water'],
  plate: ['water'],
  bezel: ['water'],
  hatch: ['running', 'water'],
  panel: ['running'],
  screw: ['water'],
  gasket: ['water'],
  'inner cover': ['running'],
  adhesive: ['water'],
  movement: ['running', 'setting'],
  'movement ring': ['setting'],
  'light module': ['light'],
  spacer: ['running'],
  insulator: ['current'],
  cover: ['running'],
  spring: ['running', 'pushers'],
  'buzzer spring': ['alarm'],
  pusher: ['pushers', 'water'],
  rotor: ['running'],
  wheel: ['running'],
  tab: ['running'],
  accumulator: ['running'],
};

/** What a kind of part usually serves; the bench may say otherwise. Source: bench practice. */
export function serves(part: Part): readonly Served[] {
  return SERVES[part];
}

/** What follows one of these says where a part belongs or what it is like, not what it is. */
const BELONGS = /[,(]|\b(?:for|of|from|to|with|in|at|under|on|as)\b/;
/** A figure, or the unit behind one: a size, not a thing. */
const SIZE = /\d|^(?:mm|cm|×|x|ø)$/;

/**
 * The part a request in words names, or null where it surely names none: `spring bar 18 mm` is a spring bar and no
 * spring, `case back gasket` a gasket, `screw for the back plate` a screw, `movement holder` no movement. It is what the
 * words end in before what it belongs to, its size apart; of names that lie in one another the longest. In doubt none, so
 * that nothing counts as ordered that is not. Source: how a part is asked for in English.
 */
export function partNamedIn(words: string): Part | null {
  const [head = ''] = words.toLowerCase().split(BELONGS);
  const said = head.split(/[\s\-–_]+/).filter(Boolean);
  const thing = said.slice(0, said.findLastIndex((word) => !SIZE.test(word)) + 1).join(' ');
  const named = PARTS.filter((part) => new RegExp(`(?:^| )${part}(?:s|es)?$`).test(thing));
  return named.sort((a, b) => b.length - a.length)[0] ?? null;
}

/** So many of something, e.g. `4 × screw`. */
export function countOf(what: string, count: number): string {
  return count > 1 ? `${figure(count, 0)} × ${what}` : what;
}

/** A part with its count and place, e.g. `4 × screw, plate corners`. */
export function partInWords(part: {
  readonly part: Part;
  readonly count: number;
  readonly position: string;
}): string {
  return `${countOf(part.part, part.count)}${part.position && `, ${part.position}`}`;
}

/** Whether a ring is that of the seam, and not of a cover inside. */
export function isSeamRing({ part, position }: { readonly part: Part; readonly position: string }): boolean {
  return part === 'gasket' && !position.startsWith('on the inner cover');
}

/** What a part that was out has to be proved to do once it is back, though nothing of it was lost. Source: bench practice. */
const PROVED_WHEN_OUT: Readonly<Partial<Record<Part, readonly Served[]>>> = {
  'light module': ['light'],
  'buzzer spring': ['alarm'],
  'movement ring': ['setting'],
  pusher: ['pushers'],
};

/** What must be proved of a part because it was out, whatever became of it. */
export function provedWhenOut(part: Part): readonly Served[] {
  return PROVED_WHEN_OUT[part] ?? [];
}

/** How a position ends that is wanted and not noted yet. */
const TO_BE_NOTED = /,? *to be noted$/i;

/** A position a hand still has to note, e.g. `notch over the stem`. */
export function toBeNoted(what: string): string {
  return `${what}, to be noted`;
}

/** Whether where it sat was to be noted and nobody did yet. */
export function wantsNoting({ position }: { readonly position: string }): boolean {
  return TO_BE_NOTED.test(position.trim());
}

/** The position with what was seen in place of what was to be noted. */
export function asNoted(position: string, seen: string): string {
  return `${position.trim().replace(TO_BE_NOTED, '')}: ${seen.trim()}`;
}

/** What is to be noted of a part, e.g. `back, notch over the stem`. */
export function whatToNote(part: Parameters<typeof partInWords>[0]): string {
  return partInWords(part).replace(TO_BE_NOTED, '');
}

/** How each is proved, in words for the bench. */
export const PROVED_BY: Readonly<Record<Served, string>> = {
  running: 'seen running',
  current: 'current measured',
  setting: 'crown in every position',
  date: 'date switched',
  light: 'light tried',
  alarm: 'alarm heard',
  'digital display': 'every segment seen',
  pushers: 'pushers tried',
  bracelet: 'bracelet seated, gentle pull',
  water: 'pressure test',
};
