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
  'spacer',
  'insulator',
  'cover',
  'spring',
  'buzzer spring',
  'pusher',
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
  spacer: ['running'],
  insulator: ['current'],
  cover: ['running'],
  spring: ['running', 'pushers'],
  'buzzer spring': ['alarm'],
  pusher: ['pushers', 'water'],
};

/** What a kind of part usually serves; the bench may say otherwise. Source: bench practice. */
export function serves(part: Part): readonly Served[] {
  return SERVES[part];
}

/** So many of something, e.g. `4 × screw`. */
export function countOf(what: string, count: number): string {
  return count > 1 ? `${count} × ${what}` : what;
}

/** A part with its count and place, e.g. `4 × screw, plate corners`. */
export function partInWords(part: {
  readonly part: Part;
  readonly count: number;
  readonly position: string;
}): string {
  return `${countOf(part.part, part.count)}${part.position && `, ${part.position}`}`;
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
