import { clockWords, turnClock, type View } from '../cases';
import { figure } from '../judgement';
import type { AboveCell } from '../movements';
import { wayTaken } from '../policy';
import { ABOVE_WAYS } from './above';
import { CHARGED_WAYS, type ChargedHand } from './charged';
import { drawingOf } from './drawing';
import { FROM_UNDER_THE_SAME, HOLDER_WAYS } from './holders';
import type {
  FittingDrawing,
  FittingGuide,
  FittingPhase,
  FittingQuestion,
  FittingStep,
  GuidedMovement,
} from './question';

/** Hand movements of a holder that an accumulator has of its own. */
const OF_THE_CELL = ['take', 'lay'];

/** Hand movements that lift the old cell out and do nothing else. */
const LIFTS_IT = ['take', 'lift', 'upper', 'ease'];

/** The part of a step’s id that names what lies above. */
const aboveId = (above: AboveCell): string => `above-${above.replace(/ /g, '-')}`;

/** A reset contact as the book names it, else as the print inside does; null where neither names one. */
function resetOf({ movement: calibre, prints }: FittingQuestion): string | null {
  if (calibre.resetContact !== null) return calibre.resetContact;
  const print = [...prints, ...calibre.printed].find((text) => /\b(AC|RESET|R\s?C)\b/i.test(text));
  return print === undefined ? null : `as printed: “${print}”`;
}

/** Where a recipe of the book belongs, by what it is for. */
const RECIPE_AT: Readonly<Record<string, 'out' | 'in' | 'after'>> = {
  'cell out': 'out',
  'cell out and in': 'out',
  'cell in': 'in',
  'after a change of cell': 'after',
};

/** The last step: it runs. Where no step is known, a seconds hand or a full minute tells. */
function runsHow({ functions, stepIntervalS }: GuidedMovement, notSeen: readonly string[]): string {
  if (stepIntervalS !== null)
    return `It steps every ${figure(stepIntervalS)} s. Watch it for longer than one step.`;
  const hands = functions.includes('hands');
  if (functions.includes('seconds hand'))
    return 'How often it steps is not known. Watch its seconds hand for several steps.';
  if (hands || notSeen.length > 0)
    return 'How often it steps is not known. Watch the minute hand for a full minute.';
  return 'Every segment of the display must light at power-up.';
}

/** Writes the steps of one guide: no danger twice, and each line of the book at the first step that takes it. */
interface StepWriter {
  readonly step: (
    phase: FittingPhase,
    id: string,
    what: string,
    how: string,
    danger?: string | null,
    ofTheBook?: readonly string[],
  ) => FittingStep;
  /** A danger unless it was told before. */
  readonly once: (danger: string | null) => string | null;
  /** The book’s lines for a phase, at the first step that takes them. */
  readonly recipe: (at: 'out' | 'in' | 'after') => readonly string[];
}

function stepWriter({ movement, further, dangersNamed }: FittingQuestion): StepWriter {
  const said = new Set(dangersNamed);
  const shown = new Set<string>();
  const once = (danger: string | null): string | null => {
    if (danger === null || said.has(danger)) return null;
    said.add(danger);
    return danger;
  };
  return {
    once,
    recipe(at) {
      if (further || shown.has(at)) return [];
      shown.add(at);
      return movement.recipes
        .filter(({ what }) => RECIPE_AT[what.trim().toLowerCase()] === at)
        .flatMap(({ steps }) => steps);
    },
    step: (phase, id, what, how, danger = null, ofTheBook = []) => ({
      id: `${phase}-${id}`,
      phase,
      what,
      how,
      danger: once(danger),
      ofTheBook,
      off: [],
      back: null,
    }),
  };
}

/** What a charged movement asks of the hand beyond a primary one; null: it runs from a primary cell. */
const chargedOf = ({ movement }: FittingQuestion) =>
  movement.charge === null ? null : CHARGED_WAYS[movement.charge.by];

const itOf = (question: FittingQuestion): 'cell' | 'accumulator' =>
  question.movement.charge === null ? 'cell' : 'accumulator';

/** The hand movements of a holder, out or in: of no cell none is lifted out, and what a pair shares is worked once. */
function handsOf(
  phase: 'out' | 'in',
  ways: (typeof HOLDER_WAYS)[keyof typeof HOLDER_WAYS],
  { noneFound, ofPair }: FittingQuestion,
) {
  const all = ways[phase];
  const hands = noneFound && phase === 'out' ? all.filter(({ id }) => !LIFTS_IT.includes(id)) : all;
  const shared = ways.sharedBy;
  if (shared === undefined || ofPair === null) return hands;
  if (phase === 'in')
    return ofPair === 'first' ? hands.filter(({ id }) => !shared.shuts.includes(id)) : hands;
  return ofPair === 'second'
    ? [...hands.filter(({ id }) => !shared.opens.includes(id)), FROM_UNDER_THE_SAME]
    : hands;
}

/** Where nobody knows what holds the cell: seen first, and put back as it was. */
function unknownHolder(phase: 'out' | 'in', { step, recipe }: StepWriter): FittingStep {
  return phase === 'out'
    ? step(
        'out',
        'see',
        'See what holds the cell',
        'It may be a lever, clip, spring, bridge, latch or hatch. Record it in stage 3 under “Cell held by”: its steps then appear here.',
        'Do not lever the cell out before you know what holds it. You could bend a contact or cut a coil.',
        recipe('out'),
      )
    : step(
        'in',
        'holder',
        'Put the holder back as it was',
        'Compare the holder with your photograph. It must press on the top of the cell, not lie beside or under it.',
        null,
        recipe('in'),
      );
}

/** The steps at the holder, out and in. A holder worked both ways warns both times. */
function holderSteps(question: FittingQuestion, writer: StepWriter): (phase: 'out' | 'in') => FittingStep[] {
  const { heldBy } = question.place;
  if (heldBy === null) return (phase) => [unknownHolder(phase, writer)];
  const ways = HOLDER_WAYS[heldBy];
  const charged = chargedOf(question);
  const ofIt = (words: string): string =>
    charged === null ? words : words.replaceAll('cell', itOf(question));
  const danger = writer.once(ways.danger);
  return (phase) =>
    handsOf(phase, ways, question)
      .filter(({ id }) => charged === null || !OF_THE_CELL.includes(id) || ways.dangerAt.includes(id))
      .map(({ id, what, how, off, back }) => ({
        ...writer.step(phase, id, ofIt(what), ofIt(how), null, writer.recipe(phase)),
        danger: ways.dangerAt.includes(id) ? danger : null,
        off,
        back: back === null ? null : `out-${back}`,
      }));
}

const chargedSteps =
  ({ step }: StepWriter) =>
  (phase: 'out' | 'in', hands: readonly ChargedHand[] = []): FittingStep[] =>
    hands.map(({ id, what, how, danger, off, back }) => ({
      ...step(phase, `charged-${id}`, what, how, danger),
      off,
      back: back === null ? null : `out-charged-${back}`,
    }));

/** What lies above the cell: off before the first holder is reached, and on again in reverse after the last cell is in. */
const aboveOff = ({ above }: FittingQuestion, { step }: StepWriter): FittingStep[] =>
  [...new Set(above.off)].map((each) => {
    const { off, part, position } = ABOVE_WAYS[each];
    return {
      ...step('out', aboveId(each), off.what, off.how, off.danger),
      off: [{ part, position, count: 1 }],
    };
  });

const aboveOn = ({ above }: FittingQuestion, { step }: StepWriter): FittingStep[] =>
  [...new Set(above.on)].reverse().map((each) => {
    const { on } = ABOVE_WAYS[each];
    return { ...step('in', aboveId(each), on.what, on.how, on.danger), back: `out-${aboveId(each)}` };
  });

/** What a tool that slips would hit: the coil ahead, or one that nobody has placed. */
function slipDanger({ movement }: FittingQuestion, { coilAheadMm }: FittingDrawing): string | null {
  if (coilAheadMm !== null)
    return `The coil lies ${figure(coilAheadMm, 1)} mm ahead. A tool that slips cuts its wire. Brace your hand, and use wood or plastic.`;
  return movement.coils.length === 0 && movement.coilsSeen !== 0
    ? 'The position of the coil is not recorded. Find it before you put a tool in, and push away from it. Use wood or plastic.'
    : null;
}

/** Before anything is touched: how it lies, the hands, the dial, the brace. */
function stepsBefore(
  question: FittingQuestion,
  drawing: FittingDrawing,
  { step }: StepWriter,
): FittingStep[] {
  const { further, noneFound, fromFront, place } = question;
  const hands = wayTaken(question.schools, 'hands');
  const it = itOf(question);
  // The layout is seen from behind; where the hand works on the dial's side, the hour is turned for it.
  const side: View = fromFront || place.heldBy === 'from the dial side' ? 'the dial' : 'behind';
  const slip = slipDanger(question, drawing);
  return [
    ...(further
      ? []
      : [
          step(
            'before',
            'look',
            'Note how everything lies',
            `Photograph ${noneFound ? '' : `${it}, `}insulators, spacer, spring and contacts.${noneFound ? ' No cell was found here.' : ''}`,
          ),
          step(
            'before',
            'hands',
            hands.way.charAt(0).toUpperCase() + hands.way.slice(1),
            hands.reason,
            `Metal across both faces shorts ${it === 'cell' ? 'a cell' : 'an accumulator'}. Do not use steel tweezers on a fresh one.`,
          ),
        ]),
    ...(fromFront && place.heldBy !== 'from the dial side'
      ? [
          step(
            'before',
            'dial',
            'Support the rim of the dial',
            'This watch opens from the front. Nothing may press on the hands or the dial.',
          ),
        ]
      : []),
    drawing.brace
      ? step(
          'before',
          'brace',
          `Brace the other hand at ${clockWords(turnClock(drawing.brace.clock, 'behind', side), side)}`,
          'Rest your other hand on the rim of the movement, at B on the drawing. If the tool slips, it stops there.',
          slip,
        )
      : step(
          'before',
          'brace',
          'Brace the other hand',
          'Rest your other hand on the rim of the movement, in the direction you push. If the tool slips, it stops there.',
          slip,
        ),
  ];
}

/** The empty well: contacts, crust, insulators. */
function stepsBetween(question: FittingQuestion, { step }: StepWriter): FittingStep[] {
  const { movement, foundClean } = question;
  const it = itOf(question);
  return [
    step(
      'between',
      'contacts',
      'Look at the empty well',
      `The contacts must be clean and springy. Leave the negative contact under the ${it}, and do not bend it.`,
      foundClean
        ? null
        : 'Crust is electrolyte and burns skin and eyes. Wear gloves, and clean the well before you fit anything.',
      movement.contactOfRevision === '' ? [] : [movement.contactOfRevision],
    ),
    ...(movement.insulators.length > 0
      ? [
          step(
            'between',
            'insulators',
            'Put the insulators in place',
            movement.insulators.join(' '),
            `Without them the ${it} shorts through the case.`,
          ),
        ]
      : []),
  ];
}

const UPSIDE_DOWN = 'A cell fitted upside down drives the circuit backwards.';

/** The fresh cell, and which face is up. */
function stepsOfFresh(question: FittingQuestion, { step }: StepWriter): FittingStep[] {
  const { place, noneFound } = question;
  const it = itOf(question);
  return [
    step(
      'in',
      'fresh',
      `Look at the fresh ${it}`,
      it === 'cell'
        ? 'If it is dull, wipe it with isopropyl alcohol, never with water, and dry it. If it has crust, scrap it.'
        : 'It must be the kit for this calibre, with every part the book lists. If it has crust, scrap it.',
    ),
    place.faceUp === null
      ? step(
          'in',
          'polarity',
          noneFound ? 'Find out which face is up' : 'Put the same face up as before',
          noneFound
            ? 'The wide flat face is +. No cell was found here, so go by the print. Or go by the contacts: the one that touches the rim of the cell is +.'
            : 'The wide flat face is +. Fit the cell the way the old one lay, or as the print shows.',
          UPSIDE_DOWN,
        )
      : step('in', 'polarity', `Put the ${place.faceUp} face up`, 'The wide flat face is +.', UPSIDE_DOWN),
  ];
}

/** Once the cell is in: buzzer, reset, and whether it runs. */
function stepsAfter(question: FittingQuestion, { step, recipe }: StepWriter): FittingStep[] {
  const { movement, last, notSeen } = question;
  const reset = resetOf(question);
  const buzzer = movement.contacts.some(({ kind }) => kind === 'buzzer');
  const isCharged = movement.charge !== null;
  return [
    ...(buzzer && last
      ? [
          step(
            'after',
            'buzzer',
            'Stand the buzzer spring upright',
            'It may touch only the back.',
            'If it is bent over, the alarm stays silent or shorts.',
          ),
        ]
      : []),
    ...(reset && last
      ? [
          step(
            'after',
            'reset',
            'Join the reset contact',
            reset,
            'Without the reset the display shows nonsense, or stays blank.',
            recipe('after'),
          ),
        ]
      : []),
    step(
      'after',
      'runs',
      isCharged ? 'Give it light or wind it, then watch it run' : 'Watch it run',
      isCharged
        ? `A new accumulator is nearly empty. Once it has had ${movement.charge?.by === 'rotor' ? 'winding' : 'light'}: ${runsHow(movement, notSeen)}`
        : runsHow(movement, notSeen),
      isCharged
        ? null
        : 'Running proves contact and voltage. It does not prove that the cell is the right one.',
      recipe('after'),
    ),
  ];
}

/**
 * The hand movements that take this cell out and put one in, for this holder and layout: what must lie under and over
 * it, its polarity, where the hand is braced, the reset contact as book or print names it, the buzzer spring, the
 * switch tab. The book’s own recipe stands at the step it belongs to. Each danger stands at its own step and at no
 * other. What nobody has seen is asked for, and nothing is made up in its place. Source: bench practice; the geometry
 * is a cone from the rim of the cell about the push, as long as a slip carries a tool, against the zone kept clear round
 * each coil.
 */
export function fittingGuide(question: FittingQuestion): FittingGuide {
  const writer = stepWriter(question);
  const drawing = drawingOf(question);
  const charged = chargedOf(question);
  const ofHolder = holderSteps(question, writer);
  const ofCharged = chargedSteps(writer);
  // Written in the order they are worked: a danger stands at the first step that has it.
  const steps: FittingStep[] = [
    ...stepsBefore(question, drawing, writer),
    ...ofCharged('out', charged?.beforeHolder),
    ...aboveOff(question, writer),
    ...ofHolder('out'),
    ...ofCharged('out', charged?.afterHolder),
    ...stepsBetween(question, writer),
    ...stepsOfFresh(question, writer),
    ...ofCharged('in', charged?.beforeHolderIn),
    ...ofHolder('in'),
    ...aboveOn(question, writer),
    ...ofCharged('in', charged?.afterHolderIn),
    ...stepsAfter(question, writer),
  ];
  return { steps, drawing, asks: question.further ? [] : question.notSeen };
}
