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
  insulator: 'Lay the insulator flat over the parts it keeps apart. Without it the cell shorts on the case.',
  spacer:
    'Put the spacer back in its old place. Without it the movement shifts, or a contact does not touch.',
  'movement ring':
    'Pull the crown out and put the ring in with its cut-out at the stem. Then push the crown home.',
  movement: 'Hold the movement by the rim of the dial, with the hole for the stem towards the crown.',
  'inner cover': 'Put the cover on with its tab in its old place.',
  'buzzer spring': 'Stand it upright with its foot on the contact. If it leans, the alarm stays silent.',
  spring: 'Seat the spring before anything presses on it.',
  'light module': 'Set its contacts on the pads. Check that nothing is trapped underneath.',
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
  const how = HOW_BACK[part] ?? 'Put the part back where it was.';
  return part !== 'inner cover'
    ? how
    : `${how} ${coverSealed ? 'Lay its own seal under it.' : 'This cover has no seal.'}`;
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
      waits: open ? `First note where it was: ${whatToNote(part)}.` : null,
    },
  );
}

function forgottenStep({ wayBack, insulators }: ClosingQuestion): readonly ClosingStep[] {
  const off = wayBack.filter(({ part }) => EASILY_FORGOTTEN.includes(part));
  if (off.length === 0 && insulators.length === 0) return [];
  return [
    step(
      'forgotten',
      'Check the parts that are easily left out',
      [
        ...off.map(({ part, count, position }) => `${countOf(part, count)}${position && `, ${position}`}`),
        ...insulators.map((each) => `the book: ${each.replace(/\.$/, '')}`),
      ].join(' · '),
      { caution: 'Without them nothing looks wrong, but the watch comes back dead or rattling.' },
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
      step('ring', 'Leave the ring where it is', 'Look along it once: nothing may lie on it or under it.', {
        partIds,
      }),
    ];
  return [
    step(
      'ring',
      `Lay the ${ring === 'reused' ? 'old ' : ring === 'renewed' ? 'new ' : ''}ring into its groove${greased === null ? '' : greased ? ', greased' : ', without grease'}`,
      greased === false
        ? 'You recorded no grease. Lay the ring in without stretching or twisting it.'
        : `Put a trace of silicone grease on with ${grease} and wipe off the surplus. Lay the ring in without stretching or twisting it.`,
      {
        caution: greased === false ? null : 'Mineral grease swells rubber. Use silicone grease only.',
        partIds,
        outcome: ring === 'renewed' ? 'replaced' : 'back in place',
        waits: ring === null ? 'First record what was done to the ring.' : null,
      },
    ),
    ...(greased === false
      ? []
      : [
          step(
            'cots',
            'Put on fresh finger cots',
            'Change the ones that touched grease before you touch cell, dial or crystal.',
            {
              caution: 'Silicone grease on a contact insulates it. On a dial it leaves a mark that stays.',
            },
          ),
        ]),
  ];
}

const PANEL_BACK: Readonly<Record<PanelHeldBy, string>> = {
  catches: 'press each catch until you hear it click',
  'sliding lock': 'slide the lock closed',
  adhesive: 'press fresh adhesive, or the adhesive you kept covered, all round',
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
      return `${atOnce ? 'Stack the press,' : 'Press all round until it clicks. If the rim stays up, use the press: stack it'} from below: ${dies.stack.join(', ')}. Press once, slowly, through the centre.`;
    case 'no die':
      return 'No die in this shop fits. Press all round with your thumbs, or refer the watch. Do not improvise a die.';
    default:
      return `${atOnce ? 'First measure the watch for the press.' : 'Press all round until it clicks.'} Dies for the press appear once its measurements are recorded.`;
  }
}

/** What closes the watch: where it sits, the part on the tray it is, and what it waits for. */
interface Lid {
  readonly seat: string;
  readonly partIds: readonly string[];
  readonly waits: string | null;
}

function idsOf(wayBack: ClosingQuestion['wayBack'], wanted: Part): readonly string[] {
  return wayBack.filter(({ part }) => part === wanted).map(({ id }) => id);
}

/** A back or bezel that is pressed on. */
function pressedShut(
  { kind, way, dies }: ClosingQuestion,
  { seat, partIds, waits }: Lid,
): readonly ClosingStep[] {
  return [
    step(
      'seat',
      kind === 'snap-on' ? 'Set the back on by hand' : 'Set the bezel on by hand',
      `${seat === '' ? 'Set it where it came off' : capital(seat)}. It must lie level all round before you press.`,
      {
        waits,
        caution:
          kind === 'snap-on'
            ? 'If the notch is not over the stem, the back bends the stem.'
            : 'The hands are unprotected until the bezel is on.',
      },
    ),
    step('press', capital(way ?? 'thumbs'), pressWords(dies, way), {
      partIds,
      caution: 'Pressing on the crystal breaks it. Press on the bezel only.',
    }),
  ];
}

/** A back on a thread. */
function screwedShut({ kind, way }: ClosingQuestion, { seat, partIds, waits }: Lid): readonly ClosingStep[] {
  return [
    step(
      'start',
      'Start the back on its thread by hand',
      `Turn it backwards until it drops into the thread, then forwards with your fingertips${seat === '' ? '' : ` (${seat})`}.`,
      {
        waits,
        caution: 'If it tilts or binds, stop and start again. A crossed thread ruins the case.',
      },
    ),
    step(
      'home',
      capital(way ?? 'wrench-snug'),
      'Tighten it by hand, then with the tool that opened it, until the lettering stands as you noted it.',
      { partIds, caution: backs[kind].caution },
    ),
  ];
}

/** A plate, its screws tightened crosswise in rounds. */
function plateOn(
  { screwCount, wayBack }: ClosingQuestion,
  { seat, partIds, waits }: Lid,
): readonly ClosingStep[] {
  const count = screwCount ?? USUAL_SCREWS;
  return [
    step(
      'plate-on',
      'Set the plate on level',
      `${seat === '' ? 'Turn its print the way it was' : capital(seat)}. Springs underneath stand upright.`,
      { partIds, waits },
    ),
    step(
      'screws-in',
      `Put all ${count} screws in without tightening`,
      'Turn each into its own hole until it just holds.',
      {},
    ),
    ...SCREW_ROUNDS.map((words, round) =>
      step(
        `round-${round + 1}`,
        `Round ${round + 1}: ${words}`,
        `Crosswise, seen from behind: ${crosswise(count).join(' – ')}.`,
        round === SCREW_ROUNDS.length - 1
          ? {
              partIds: idsOf(wayBack, 'screw'),
              caution:
                'If one side is tightened first, the plate squeezes its ring there and leaks on the opposite side.',
            }
          : {},
      ),
    ),
  ];
}

/** A hatch, to the mark made before it came off. */
function hatchIn({ hatchOpens }: ClosingQuestion, { seat, partIds, waits }: Lid): readonly ClosingStep[] {
  return [
    step(
      'hatch-on',
      hatchOpens === 'pried' ? 'Press the hatch in at its nick' : 'Turn the hatch in to its mark',
      seat === ''
        ? 'Set it to the mark you made before it came off: the contact and the seal depend on that angle.'
        : `${capital(seat)}: the contact and the seal depend on that angle.`,
      {
        partIds,
        waits,
        caution: 'If the hatch stops beside its mark, the contact misses its pad and the seal is pinched.',
      },
    ),
  ];
}

/** A panel, and what holds it in reverse. */
function panelOn(
  { panelLayers, wayBack }: ClosingQuestion,
  { seat, partIds, waits }: Lid,
): readonly ClosingStep[] {
  return [
    step(
      'panel-on',
      'Set the panel on as it was',
      `${seat === '' ? 'Turn it the way it was' : capital(seat)}. Keep the margins even and your hands off the crystal.`,
      {
        partIds,
        waits,
        caution: 'Pressing on the crystal on the other side breaks it. Press at the catches.',
      },
    ),
    ...[...panelLayers].reverse().map((layer) =>
      step(`layer-${layer.replaceAll(' ', '-')}`, capital(layer), `${capital(PANEL_BACK[layer])}.`, {
        partIds: layer === 'adhesive' ? idsOf(wayBack, 'adhesive') : [],
      }),
    ),
  ];
}

const SHUT: Readonly<Record<BackKind, (question: ClosingQuestion, lid: Lid) => readonly ClosingStep[]>> = {
  'snap-on': pressedShut,
  'opens from the front': pressedShut,
  'screwed, notched': screwedShut,
  'screwed, round holes': screwedShut,
  'screwed, patterned': screwedShut,
  'plate on screws': plateOn,
  'battery hatch': hatchIn,
  'latched panel': panelOn,
};

/** How the watch itself is shut, by its kind of back. */
function shutSteps(question: ClosingQuestion): readonly ClosingStep[] {
  const lid = question.wayBack.find(({ part }) => LIDS.includes(part)) ?? null;
  return SHUT[question.kind](question, {
    seat: seatWords(question),
    partIds: lid ? [lid.id] : [],
    waits: lid && wantsNoting(lid) ? `First note where it was: ${whatToNote(lid)}.` : null,
  });
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
      'Remove the dust',
      kind === 'opens from the front'
        ? 'Check dial, hands and the inside of the crystal against the light, and turn the watch once. Any dust left inside stays visible.'
        : 'Check movement, rim and groove against the light. A hair across the seam causes a leak.',
    ),
    ...shut,
    step(
      'seam',
      'Look along the whole seam',
      'Look once round against the light. If part of the back stands up or the ring shows, open it again.',
    ),
    ...others
      .filter(({ part }) => OUTSIDE.includes(part))
      .map((part) => partStep(part, question.coverSealed)),
  ];
}
