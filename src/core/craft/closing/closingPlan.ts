import { backs, type BackKind, clockWords, type PanelHeldBy, type View } from '../cases';
import { capital } from '../judgement';
import type { RingState } from '../gaskets';
import { countOf, isSeamRing, type Part, wantsNoting, whatToNote } from '../parts';
import { crosswise, SCREW_ROUNDS, USUAL_SCREWS } from './crosswise';
import type { FitOfDies } from './fitDies';

/** A part that lies on the tray and goes back. */
export interface PartToReturn {
  /** The entry it came off with: a tick settles it. */
  readonly id: string;
  readonly part: Part;
  readonly position: string;
  readonly count: number;
}

export interface ClosingStep {
  /** Stable as long as the facts are: a tick names it. */
  readonly id: string;
  readonly what: string;
  readonly how: string;
  /** The one hazard of this step, with its reason. */
  readonly caution: string | null;
  /** The parts that are back once this is done. */
  readonly partIds: readonly string[];
  /** What has become of them then. */
  readonly outcome: 'back in place' | 'replaced';
  /** Why it cannot be done yet; null where it can. */
  readonly waits: string | null;
}

export interface ClosingQuestion {
  readonly kind: BackKind;
  /** Every part that came off and was not lost, the last off first. */
  readonly wayBack: readonly PartToReturn[];
  /** Where the lip or nick sits and the side it is seen from; null where it has none or nobody saw it. */
  readonly lipClock: number | null;
  readonly lipSeenFrom: View;
  /** Where the crown stands, seen from the same side; null: none. */
  readonly crownClock: number | null;
  /** What the back itself was noted by as it came off, with what a placeholder still asks. */
  readonly backNoted: string | null;
  readonly screwCount: number | null;
  readonly hatchOpens: 'turned' | 'pried' | null;
  /** What held a panel, the first undone first. */
  readonly panelLayers: readonly PanelHeldBy[];
  /** What is known to lie over the cell and beneath the back and is not on the tray, the innermost first. */
  readonly inside: readonly Part[];
  /** Whether an inner cover has a seal of its own. */
  readonly coverSealed: boolean;
  /** What the book says lies in it and is easily left out. */
  readonly insulators: readonly string[];
  /** How this shop closes such a back; null where the back itself says it. */
  readonly way: string | null;
  readonly grease: string;
  readonly ring: RingState | null;
  /** Whether grease went on it; null: nobody said yet. */
  readonly greased: boolean | null;
  readonly dies: FitOfDies | null;
}

/** They lie under something else, and nothing looks wrong without them. */
const EASILY_FORGOTTEN: readonly Part[] = ['insulator', 'spacer', 'movement ring', 'buzzer spring', 'spring'];
/** They go on once the watch is shut. */
const OUTSIDE: readonly Part[] = ['spring bar', 'bracelet pin'];
/** What closes the watch itself. */
const LIDS: readonly Part[] = ['back', 'plate', 'bezel', 'hatch', 'panel'];

const HOW_BACK: Readonly<Partial<Record<Part, string>>> = {
  insulator: 'Flat, over what it keeps apart; without it the cell shorts on the case.',
  spacer: 'Where it lay: without it the movement moves, or the contact hangs free.',
  'movement ring': 'In with the crown pulled out, its cut-out at the stem; then the crown home.',
  movement: 'By the dial’s rim, the stem’s hole towards the crown.',
  'inner cover': 'Its tab where it was.',
  'buzzer spring': 'Upright, its foot on the contact: a leaning one keeps silent.',
  spring: 'Seated before anything presses on it.',
  'light module': 'Its contacts on the pads, nothing trapped beneath.',
};

function step(
  id: string,
  what: string,
  how: string,
  {
    caution = null,
    partIds = [],
    outcome = 'back in place',
    waits = null,
  }: Partial<Pick<ClosingStep, 'caution' | 'partIds' | 'outcome' | 'waits'>> = {},
): ClosingStep {
  return { id, what, how, caution, partIds, outcome, waits };
}

/** A cover that only keeps dust off has no seal to lay under it. */
function howBack(part: Part, coverSealed: boolean): string {
  const how = HOW_BACK[part] ?? 'Where it was.';
  return part !== 'inner cover'
    ? how
    : `${how} ${coverSealed ? 'Its own ring under it.' : 'It has no seal.'}`;
}

/** What is known to lie in there, whether anybody noted that it came off or not. */
function insideSteps({ inside, coverSealed }: ClosingQuestion): readonly ClosingStep[] {
  return inside.map((part) =>
    step(`inside-${part.replaceAll(' ', '-')}`, `${capital(part)} in place`, howBack(part, coverSealed)),
  );
}

/** A placeholder is no position: the step waits until somebody says where it sat. */
function partStep(part: PartToReturn, coverSealed: boolean): ClosingStep {
  const words = countOf(part.part, part.count);
  const open = wantsNoting(part);
  return step(
    `part-${part.id}`,
    `${capital(words)} back${open || part.position === '' ? '' : `: ${part.position}`}`,
    howBack(part.part, coverSealed),
    {
      partIds: [part.id],
      waits: open ? `Note where it sat first: ${whatToNote(part)}.` : null,
    },
  );
}

function forgottenStep({ wayBack, insulators }: ClosingQuestion): readonly ClosingStep[] {
  const off = wayBack.filter(({ part }) => EASILY_FORGOTTEN.includes(part));
  if (off.length === 0 && insulators.length === 0) return [];
  return [
    step(
      'forgotten',
      'First, what is easily left out',
      [
        ...off.map(({ part, count, position }) => `${countOf(part, count)}${position && `, ${position}`}`),
        ...insulators.map((each) => `the book: ${each.replace(/\.$/, '')}`),
      ].join(' · '),
      { caution: 'Nothing looks wrong without them, and the watch comes back dead or rattling.' },
    ),
  ];
}

/** The ring and its grease, and what is changed after. */
function ringSteps({ ring, greased, grease, wayBack }: ClosingQuestion): readonly ClosingStep[] {
  // Where there is none nothing is laid in, and nothing on the tray is taken for it.
  if (ring === 'none there') return [];
  const partIds = wayBack.filter(isSeamRing).map(({ id }) => id);
  if (ring === 'left in place')
    return [
      step('ring', 'Ring left where it lies', 'Look along it once: nothing on it, nothing under it.', {
        partIds,
      }),
    ];
  return [
    step(
      'ring',
      `${ring === 'reused' ? 'The same ring' : ring === 'renewed' ? 'The new ring' : 'Ring'}${greased === null ? '' : greased ? ', greased,' : ', dry,'} into its groove`,
      greased === false
        ? 'Recorded without grease. Laid in, not drawn, without a twist.'
        : `A trace of silicone by ${grease}, surplus off; laid in, not drawn, without a twist.`,
      {
        caution: greased === false ? null : 'Mineral grease swells rubber: silicone only.',
        partIds,
        outcome: ring === 'renewed' ? 'replaced' : 'back in place',
        waits: ring === null ? 'Say first what was done to the ring.' : null,
      },
    ),
    ...(greased === false
      ? []
      : [
          step('cots', 'Fresh cots', 'Off with those that touched grease, before cell, dial or crystal.', {
            caution: 'Silicone on a contact insulates; on a dial it stays.',
          }),
        ]),
  ];
}

const PANEL_BACK: Readonly<Record<PanelHeldBy, string>> = {
  catches: 'pressed until each catch is heard',
  'sliding lock': 'the lock slid home',
  adhesive: 'fresh or covered adhesive pressed all round',
};

function seatWords({ kind, lipClock, lipSeenFrom, crownClock, backNoted }: ClosingQuestion): string {
  // A snap-on back has its notch over the stem, whether anybody noted it or not.
  const overStem =
    kind === 'snap-on' && crownClock !== null
      ? `notch over the stem at ${clockWords(crownClock, lipSeenFrom)}`
      : null;
  return [lipClock === null ? null : `lip at ${clockWords(lipClock, lipSeenFrom)}`, backNoted ?? overStem]
    .filter((each) => each !== null)
    .join(', ');
}

/** How it goes home: by the press where this shop takes it at once, else where thumbs do not do. */
function pressWords(dies: FitOfDies | null, way: string | null): string {
  const atOnce = way?.startsWith('press') ?? false;
  switch (dies?.verdict) {
    case 'press':
      return `${atOnce ? 'From' : 'All round until it is heard; where the rim stays up, in the press, from'} below: ${dies.stack.join(', ')}. One slow stroke, the axis through the middle.`;
    case 'no die':
      return 'No die of this shop fits: by the thumbs all round, or refer it; nothing improvised.';
    default:
      return `${atOnce ? 'Measure it for the press first' : 'All round until it is heard'}: the dies are worked out once its measures are recorded.`;
  }
}

/** How the watch itself is shut, by its kind of back. */
function shutSteps(question: ClosingQuestion): readonly ClosingStep[] {
  const { kind, way, dies, screwCount, hatchOpens, panelLayers, wayBack } = question;
  const lid = wayBack.find(({ part }) => LIDS.includes(part)) ?? null;
  const partIds = lid ? [lid.id] : [];
  const ofPart = (wanted: Part): readonly string[] =>
    wayBack.filter(({ part }) => part === wanted).map(({ id }) => id);
  const waits = lid && wantsNoting(lid) ? `Note where it sat first: ${whatToNote(lid)}.` : null;
  const seat = seatWords(question);
  const on = { partIds, waits };
  switch (kind) {
    case 'snap-on':
    case 'opens from the front':
      return [
        step(
          'seat',
          kind === 'snap-on' ? 'Set the back on by hand' : 'Set the bezel on by hand',
          `${seat === '' ? 'Where it came off' : capital(seat)}; level all round before anything presses.`,
          {
            waits,
            caution:
              kind === 'snap-on'
                ? 'A notch beside its stem bends the stem.'
                : 'The hands stand free until it is on.',
          },
        ),
        step('press', capital(way ?? 'thumbs'), pressWords(dies, way), {
          partIds,
          caution: 'Pressed on its crystal a crystal breaks: over the bezel only.',
        }),
      ];
    case 'screwed, notched':
    case 'screwed, round holes':
    case 'screwed, patterned':
      return [
        step(
          'start',
          'Back onto its thread by hand',
          `Turn it backwards until it drops, then forward by the fingertips${seat === '' ? '' : `; ${seat}`}.`,
          {
            waits,
            caution: 'Where it cocks or binds, stop and begin anew: a crossed thread is the case’s end.',
          },
        ),
        step(
          'home',
          capital(way ?? 'wrench-snug'),
          'Home by hand, then by the tool that opened it, until the lettering stands as it was noted.',
          { partIds, caution: backs[kind].caution },
        ),
      ];
    case 'plate on screws': {
      const count = screwCount ?? USUAL_SCREWS;
      return [
        step(
          'plate-on',
          'Plate on, level',
          `${seat === '' ? 'Print as it was' : capital(seat)}; springs beneath upright.`,
          on,
        ),
        step(
          'screws-in',
          `All ${count} screws in, none tight`,
          'Each to its own hole, until it just holds.',
          {},
        ),
        ...SCREW_ROUNDS.map((words, round) =>
          step(
            `round-${round + 1}`,
            `Round ${round + 1}: ${words}`,
            `Crosswise, seen from behind: ${crosswise(count).join(' – ')}.`,
            round === SCREW_ROUNDS.length - 1
              ? {
                  partIds: ofPart('screw'),
                  caution:
                    'Drawn down on one side first, a plate squeezes its ring there and leaks across from it.',
                }
              : {},
          ),
        ),
      ];
    }
    case 'battery hatch':
      return [
        step(
          'hatch-on',
          hatchOpens === 'pried' ? 'Hatch pressed home at its nick' : 'Hatch in, to its reference',
          seat === ''
            ? 'To the mark that was set before it came off: contact and seal sit by that angle.'
            : `${capital(seat)}: contact and seal sit by that angle.`,
          {
            ...on,
            caution: 'Home beside its mark the contact presses beside its pad, and the seal is pinched.',
          },
        ),
      ];
    case 'latched panel':
      return [
        step(
          'panel-on',
          'Panel on, to its reference',
          `${seat === '' ? 'The edge that was up, up' : capital(seat)}; margins even, hands clear of the crystal.`,
          { ...on, caution: 'A thumb on the crystal behind it breaks the crystal: press at the catches.' },
        ),
        ...[...panelLayers].reverse().map((layer) =>
          step(`layer-${layer.replaceAll(' ', '-')}`, capital(layer), `${capital(PANEL_BACK[layer])}.`, {
            partIds: layer === 'adhesive' ? ofPart('adhesive') : [],
          }),
        ),
      ];
  }
}

/**
 * The order of work that shuts this watch: what is easily forgotten first, then all that came off in reverse, dust, ring,
 * the back by its kind, the seam, and what goes on outside. A part whose place nobody noted waits until somebody does.
 * Never throws. Source: bench practice, shop policy.
 */
export function closingPlan(question: ClosingQuestion): readonly ClosingStep[] {
  const { wayBack, kind } = question;
  const shut = [...ringSteps(question), ...shutSteps(question)];
  const named = new Set(shut.flatMap(({ partIds }) => partIds));
  const others = wayBack.filter(({ id }) => !named.has(id));
  return [
    ...forgottenStep(question),
    ...others
      .filter(({ part }) => !OUTSIDE.includes(part))
      .map((part) => partStep(part, question.coverSealed)),
    ...insideSteps(question),
    step(
      'dust',
      'Dust off',
      kind === 'opens from the front'
        ? 'Dial, hands and inner crystal, against the light, turned once: what stays shows for years.'
        : 'Movement, rim and groove, against the light; a hair across the seam is a leak.',
    ),
    ...shut,
    step(
      'seam',
      'Look along the whole seam',
      'Once round, against the light: no sector stands up, no ring shows. What does is opened again.',
    ),
    ...others
      .filter(({ part }) => OUTSIDE.includes(part))
      .map((part) => partStep(part, question.coverSealed)),
  ];
}
