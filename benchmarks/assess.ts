import { diagnose, type FaultQuestion } from '../src/core/craft/health';
import type { Chance } from './random';

/** A watch somebody made up: what ails it, what is known of it, and what comes of each look. */
export interface Ailing {
  readonly faults: readonly string[];
  readonly question: FaultQuestion;
  readonly look: (observable: string) => string;
}

/** Seen at once with the loupe. */
export const LOUPE = [
  'crust or bloom',
  'damp or rust',
  'fluff at the rotor',
  'loose screw',
  'insulator missing',
  'contact bent',
  'contact oxidised',
  'cell inverted',
  'arm touching the rotor',
];
/** Told by an owner, or not. */
export const TOLD = [
  'display fades',
  'light or alarm fails first',
  'does not hold its charge',
  'loses time',
  'fog under the crystal',
];
const MOST_TESTS = 7;
/** An owner tells of what is there in so many cases. */
const OWNERS_TELL = 0.7;
const AIMS = { named: 0.92, sound: 0.95, amongTwo: 0.92 } as const;
const PAST = new Set([
  'spent',
  'sags',
  'over the limit',
  'far over the limit',
  'next to nothing',
  'nothing',
  'over',
  'open',
  'shorted',
  'suspect',
  'late',
  'off',
]);

const share = (part: number, of: number): string => `${((100 * part) / of).toFixed(1)} %`;

interface Named {
  count: number;
  right: number;
  said: number;
}

/**
 * Carries watches through the diagnosis as a technician would, who takes each test that is asked next, and prints how often a
 * named cause is real, each cause beside the probability it was named with. False where an aim is missed.
 */
export function assess(name: string, watches: number, { uniform }: Chance, made: () => Ailing): boolean {
  const byCause = new Map<string, Named>();
  let [sound, soundRight, withFault, amongTwo, past, unsaid, tests] = [0, 0, 0, 0, 0, 0, 0];
  for (let watch = 0; watch < watches; watch += 1) {
    const { faults, question, look } = made();
    const observed = new Map<string, string>([['shows', look('shows')]]);
    for (const answer of TOLD)
      if (uniform() < OWNERS_TELL && look(answer) === 'there') observed.set(answer, 'there');
    const ask = (): ReturnType<typeof diagnose> =>
      diagnose({ ...question, observed: observed as unknown as FaultQuestion['observed'] });
    let said = ask();
    for (let test = 0; test < MOST_TESTS && said.nextTest !== null; test += 1) {
      const { observable } = said.nextTest;
      for (const each of LOUPE.includes(observable) ? LOUPE : [observable]) observed.set(each, look(each));
      tests += 1;
      said = ask();
    }
    if (
      JSON.stringify(said).includes('Infinity') ||
      said.working.some(({ figures }) => /NaN|Infinity|undefined/.test(figures)) ||
      said.ranked.some(({ evidence }) => evidence.some(({ bits }) => !Number.isFinite(bits)))
    )
      unsaid += 1;
    if (said.verdict === 'found')
      for (const cause of said.causes) {
        const so = byCause.get(cause) ?? { count: 0, right: 0, said: 0 };
        so.count += 1;
        so.said += said.ranked.find(({ fault }) => fault === cause)?.probability ?? 0;
        if (faults.includes(cause)) so.right += 1;
        byCause.set(cause, so);
      }
    if (said.verdict === 'nothing wrong') {
      sound += 1;
      if (faults.length === 0) soundRight += 1;
      if ([...observed.values()].some((outcome) => PAST.has(outcome))) past += 1;
    }
    if (faults.length > 0) {
      withFault += 1;
      if (said.ranked.slice(0, 2).some(({ fault }) => faults.includes(fault))) amongTwo += 1;
    }
  }
  const sumOf = (of: keyof Named): number => [...byCause.values()].reduce((sum, each) => sum + each[of], 0);
  const [named, namedRight] = [sumOf('count'), sumOf('right')];
  console.log(
    `${watches} watches ${name}, ${(tests / watches).toFixed(1)} tests each: a named cause is real in ${share(namedRight, named)} of ${named} (aim ${AIMS.named * 100} %); nothing wrong is right in ${share(soundRight, sound)} of ${sound} (aim ${AIMS.sound * 100} %); the real one is among the first two in ${share(amongTwo, withFault)} of ${withFault} (aim ${AIMS.amongTwo * 100} %).`,
  );
  console.log(
    `  Named with what probability, and real in: ${[...byCause]
      .sort(([, a], [, b]) => b.count - a.count)
      .map(
        ([cause, so]) => `${cause} ${share(so.said, so.count)}, ${share(so.right, so.count)} of ${so.count}`,
      )
      .join('; ')}.`,
  );
  console.log(
    `  Nothing wrong over a reading past its limit: ${past} (aim 0). Figures without end: ${unsaid} (aim 0).`,
  );
  return (
    namedRight / named >= AIMS.named &&
    soundRight / sound >= AIMS.sound &&
    amongTwo / withFault >= AIMS.amongTwo &&
    past === 0 &&
    unsaid === 0
  );
}
