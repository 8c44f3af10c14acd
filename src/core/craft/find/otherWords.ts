/**
 * What a technician may call a thing beside the word of this program. Words of one line find each other. Listed in
 * docs/words.md, which a test compares.
 */
export const OTHER_WORDS: readonly (readonly string[])[] = [
  ['accumulator', 'rechargeable', 'capacitor', 'kit'],
  ['agreement', 'consent', 'permission'],
  ['back', 'lid', 'caseback'],
  ['cell', 'battery'],
  ['crown', 'stem'],
  ['crystal', 'glass'],
  ['current', 'consumption', 'drain', 'draw'],
  ['dropped', 'lost', 'floor', 'swallowed'],
  ['estimate', 'quote', 'offer'],
  ['examined', 'loupe', 'inspection', 'look'],
  ['finding', 'diagnosis', 'cause', 'fault'],
  ['functions', 'buttons', 'light', 'alarm'],
  ['groove', 'channel', 'seat'],
  ['hatch', 'cover'],
  ['leakage', 'leak', 'electrolyte', 'corrosion', 'acid'],
  ['marks', 'scratch', 'dent', 'damage', 'film'],
  ['measured', 'measures', 'caliper', 'size'],
  ['originality', 'vintage'],
  ['part', 'tray', 'screw', 'spring'],
  ['press', 'die'],
  ['price', 'cost', 'discount'],
  ['proving', 'observation', 'rate'],
  ['pulses', 'pick-up', 'signal'],
  ['pusher', 'button'],
  ['refer', 'return', 'unrepaired', 'elsewhere'],
  ['ring', 'gasket', 'seal', 'o-ring', 'packing'],
  ['serial', 'number'],
  ['strap', 'bracelet', 'band'],
  ['voltage', 'volt'],
  ['volume', 'tester'],
  ['wait', 'order', 'missing'],
  ['water', 'swimming', 'diving', 'shower'],
];

const wordsOf = (text: string): readonly string[] => text.toLowerCase().match(/[\p{L}\p{N}-]+/gu) ?? [];

/** Two forms of one word: *marks* and *mark*, *pusher* and *push*. */
const SHORTEST_STEM = 3;
const isFormOf = (word: string, other: string): boolean =>
  word === other ||
  (other.length >= SHORTEST_STEM && word.startsWith(other) && word.length - other.length <= 2);

/**
 * Whether a name is one that is searched for: each word typed begins a word of the name, or another word for one of them.
 * Nothing typed finds every name.
 */
export function isSearchedFor(name: string, typed: string): boolean {
  const own = wordsOf(name);
  const others = OTHER_WORDS.filter((line) =>
    line.some((word) => own.some((each) => isFormOf(each, word) || isFormOf(word, each))),
  ).flat();
  const all = [...own, ...others];
  return wordsOf(typed).every((word) => all.some((each) => each.startsWith(word)));
}
