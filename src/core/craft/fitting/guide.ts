import { clockWords, turnClock, type View } from '../cases';
import { figure } from '../judgement';
import { type AboveCell, type Calibre, type Coil, inFrameOf, type Well } from '../movements';
import { type Schools, wayTaken } from '../policy';
import { ABOVE_WAYS } from './above';
import { CHARGED_WAYS, type ChargedHand } from './charged';
import { FROM_UNDER_THE_SAME, HOLDER_WAYS, type PlacedPart } from './holders';

export const FITTING_PHASES = ['before', 'out', 'between', 'in', 'after'] as const;
export type FittingPhase = (typeof FITTING_PHASES)[number];

export interface FittingStep {
  readonly id: string;
  readonly phase: FittingPhase;
  readonly what: string;
  readonly how: string;
  /** Stands at this step and at no other; null: none here. */
  readonly danger: string | null;
  /** The book’s own lines for this movement, where they belong to this step. */
  readonly ofTheBook: readonly string[];
  /** What this step lays on the tray. */
  readonly off: readonly PlacedPart[];
  /** The step whose parts go back at this one; null: none do. */
  readonly back: string | null;
}

/** Where the hand goes on the layout. Millimetres from the centre, seen from the back, y to 12 o'clock. */
export interface FittingDrawing {
  /** Where the other hand is braced: at the rim of the movement, and the hour it lies at. */
  readonly brace: { readonly xMm: number; readonly yMm: number; readonly clock: number } | null;
  /** Whether a push carried on would come to a coil, and how far that is from the cell's rim. */
  readonly coilAheadMm: number | null;
}

export interface FittingGuide {
  readonly steps: readonly FittingStep[];
  readonly drawing: FittingDrawing;
  /** What nobody has seen yet and the guide would go by, in words. */
  readonly asks: readonly string[];
}

/** What of a movement the hand goes by: of the book, or as it was seen. */
export type GuidedMovement = Pick<
  Calibre,
  | 'coils'
  | 'contacts'
  | 'insulators'
  | 'printed'
  | 'resetContact'
  | 'stepIntervalS'
  | 'keepClearMm'
  | 'widthMm'
  | 'lengthMm'
  | 'functions'
  | 'recipes'
  | 'charge'
> & {
  /** Coils seen whose place is not known. */
  readonly coilsSeen: number | null;
  /** How its contact tells its revision, or which revisions it may be; empty where there is one only. */
  readonly contactOfRevision: string;
};

/** What of a place for a cell the hand goes by; null where nobody knows. */
export interface GuidedPlace {
  readonly xMm: number;
  readonly yMm: number;
  readonly heldBy: Well['heldBy'] | null;
  readonly faceUp: Well['faceUp'] | null;
  readonly pushDegrees: number | null;
}

interface FittingQuestion {
  readonly movement: GuidedMovement;
  readonly place: GuidedPlace;
  /** What of the movement was not looked at, in words; empty where the book has it. */
  readonly notSeen: readonly string[];
  /** What is lifted on the way to this cell, and what goes back once it is in; the outermost first. */
  readonly above: { readonly off: readonly AboveCell[]; readonly on: readonly AboveCell[] };
  readonly cellDiameterMm: number | null;
  readonly schools: Schools;
  /** What was read on the print inside this very watch. */
  readonly prints: readonly string[];
  /** Whether the watch opens from its front. */
  readonly fromFront: boolean;
  /** Whether somebody looked and found no cell in its place. */
  readonly noneFound: boolean;
  /** Whether the cell found was clean, so that nothing corrosive is met. */
  readonly foundClean: boolean;
  /** Whether another well of this watch was worked before: what holds for all stands there. */
  readonly further: boolean;
  /** Whether no other well is worked after this one: then what lay above goes back, and the reset is joined once. */
  readonly last: boolean;
  /** Of a pair under one latch, which this is: the latch is opened at the first and shut at the second. Null: no such pair. */
  readonly ofPair: 'first' | 'second' | null;
  /** Dangers that stand at a well worked before. */
  readonly told: readonly string[];
}

/** Hand movements of a holder that an accumulator has of its own. */
const OF_THE_CELL = ['take', 'lay'];

/** Hand movements that lift the old cell out and do nothing else. */
const LIFTS_IT = ['take', 'lift', 'upper', 'ease'];

/** The part of a step’s id that names what lies above. */
const aboveId = (above: AboveCell): string => `above-${above.replace(/ /g, '-')}`;

const CELL_MM = 7;
/** A push that slips carries a tool this far, within this angle to either side. Ours, from bench practice. */
const SLIP_MM = 8;
const SLIP_HALF_DEGREES = 30;
const RAY_EVERY_DEGREES = 1;
const DEGREES_AN_HOUR = 30;

const radians = (degrees: number): number => (degrees / 180) * Math.PI;

/** How far along a ray a coil’s keep-clear zone begins, mm; null where the ray misses it. */
function alongTo(
  coil: Coil,
  keepClearMm: number,
  from: { readonly x: number; readonly y: number },
  direction: { readonly x: number; readonly y: number },
): number | null {
  const start = inFrameOf(coil, from.x - coil.xMm, from.y - coil.yMm);
  const step = inFrameOf(coil, direction.x, direction.y);
  let [enter, leave] = [0, SLIP_MM];
  for (const [at, by, half] of [
    [start.across, step.across, coil.widthMm / 2 + keepClearMm],
    [start.along, step.along, coil.lengthMm / 2 + keepClearMm],
  ] as const) {
    if (Math.abs(by) < 1e-9) {
      if (Math.abs(at) > half) return null;
      continue;
    }
    const [a, b] = [(-half - at) / by, (half - at) / by];
    enter = Math.max(enter, Math.min(a, b));
    leave = Math.min(leave, Math.max(a, b));
  }
  return enter <= leave ? enter : null;
}

const towards = (degrees: number): { readonly x: number; readonly y: number } => ({
  x: Math.sin(radians(degrees)),
  y: Math.cos(radians(degrees)),
});

/**
 * How near a coil’s keep-clear zone comes within the cone a slipping tool may take from the rim of the cell, mm; null
 * where none lies in it. Rays through the cone, one every degree.
 */
function coilInSlip(
  { coils, keepClearMm }: GuidedMovement,
  { xMm, yMm }: GuidedPlace,
  pushDegrees: number,
  radiusMm: number,
): number | null {
  const push = towards(pushDegrees);
  const from = { x: xMm + push.x * radiusMm, y: yMm + push.y * radiusMm };
  const ahead: number[] = [];
  for (let off = -SLIP_HALF_DEGREES; off <= SLIP_HALF_DEGREES; off += RAY_EVERY_DEGREES)
    for (const coil of coils) {
      const mm = alongTo(coil, keepClearMm, from, towards(pushDegrees + off));
      if (mm !== null) ahead.push(mm);
    }
  return ahead.length === 0 ? null : Math.min(...ahead);
}

function drawingOf({ movement: calibre, place: well, cellDiameterMm }: FittingQuestion): FittingDrawing {
  const { pushDegrees } = well;
  if (pushDegrees === null || !Number.isFinite(pushDegrees)) return { brace: null, coilAheadMm: null };
  const coilAheadMm = coilInSlip(calibre, well, pushDegrees, (cellDiameterMm ?? CELL_MM) / 2);
  const halfMm =
    calibre.widthMm === null ? null : Math.min(calibre.widthMm, calibre.lengthMm ?? Infinity) / 2;
  if (halfMm === null || !(halfMm > 0 && halfMm < Infinity)) return { brace: null, coilAheadMm };
  // Where the push comes to, so that a slip ends at the finger; beside it where a coil lies there.
  const degrees = [0, 30, -30, 60, -60, 90, -90].map((off) => pushDegrees + off);
  const clear = degrees.find((each) => {
    const [x, y] = [Math.sin(radians(each)) * halfMm, Math.cos(radians(each)) * halfMm];
    return calibre.coils.every(
      (coil) => Math.hypot(coil.xMm - x, coil.yMm - y) > Math.max(coil.lengthMm, coil.widthMm) / 2,
    );
  });
  const braced = clear ?? pushDegrees;
  const clock = Math.round((((braced % 360) + 360) % 360) / (DEGREES_AN_HOUR / 2)) / 2;
  const tenth = (mm: number): number => Math.round(mm * 10) / 10;
  return {
    brace: {
      xMm: tenth(Math.sin(radians(braced)) * halfMm),
      yMm: tenth(Math.cos(radians(braced)) * halfMm),
      clock: clock === 0 ? 12 : clock,
    },
    coilAheadMm,
  };
}

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

/**
 * The hand movements that take this cell out and put one in, for this holder and layout: what must lie under and over
 * it, its polarity, where the hand is braced, the reset contact as book or print names it, the buzzer spring, the
 * switch tab. The book’s own recipe stands at the step it belongs to. Each danger stands at its own step and at no
 * other. What nobody has seen is asked for, and nothing is made up in its place. Source: bench practice; the geometry
 * is a cone from the rim of the cell about the push, as long as a slip carries a tool, against the zone kept clear round
 * each coil.
 */
export function fittingGuide(question: FittingQuestion): FittingGuide {
  const {
    movement,
    place,
    notSeen,
    schools,
    fromFront,
    foundClean,
    further,
    last,
    told,
    ofPair,
    above,
    noneFound,
  } = question;
  const ways = place.heldBy === null ? null : HOLDER_WAYS[place.heldBy];
  const drawing = drawingOf(question);
  const hands = wayTaken(schools, 'hands');
  const reset = resetOf(question);
  // The layout is seen from behind; where the hand works on the dial's side, the hour is turned for it.
  const side: View = fromFront || place.heldBy === 'from the dial side' ? 'the dial' : 'behind';
  const buzzer = movement.contacts.some(({ kind }) => kind === 'buzzer');
  const said = new Set(told);
  const once = (danger: string | null): string | null => {
    if (danger === null || said.has(danger)) return null;
    said.add(danger);
    return danger;
  };
  const shown = new Set<string>();
  /** The book’s lines for a phase, at the first step that takes them. */
  const recipe = (at: 'out' | 'in' | 'after'): readonly string[] => {
    if (further || shown.has(at)) return [];
    shown.add(at);
    return movement.recipes
      .filter(({ what }) => RECIPE_AT[what.trim().toLowerCase()] === at)
      .flatMap(({ steps }) => steps);
  };
  const step = (
    phase: FittingPhase,
    id: string,
    what: string,
    how: string,
    danger: string | null = null,
    ofTheBook: readonly string[] = [],
  ): FittingStep => ({
    id: `${phase}-${id}`,
    phase,
    what,
    how,
    danger: once(danger),
    ofTheBook,
    off: [],
    back: null,
  });
  const charged = movement.charge === null ? null : CHARGED_WAYS[movement.charge.by];
  const it = charged === null ? 'cell' : 'accumulator';
  const ofIt = (words: string): string => (charged === null ? words : words.replaceAll('cell', it));
  // A holder worked both ways warns both times.
  const ofThisHolder = ways === null ? null : once(ways.danger);
  const towardsCoil =
    drawing.coilAheadMm === null
      ? null
      : `The coil lies ${figure(drawing.coilAheadMm, 1)} mm ahead. A tool that slips cuts its wire. Brace your hand, and use wood or plastic.`;
  const unplaced =
    movement.coils.length === 0 && movement.coilsSeen !== 0
      ? 'The position of the coil is not recorded. Find it before you put a tool in, and push away from it. Use wood or plastic.'
      : null;
  const handsOf = (phase: 'out' | 'in') => {
    const all = ways?.[phase] ?? [];
    // Of no cell none is lifted out; what holds it is opened all the same.
    const hands = noneFound && phase === 'out' ? all.filter(({ id }) => !LIFTS_IT.includes(id)) : all;
    const shared = ways?.sharedBy;
    if (shared === undefined || ofPair === null) return hands;
    if (phase === 'in')
      return ofPair === 'first' ? hands.filter(({ id }) => !shared.shuts.includes(id)) : hands;
    return ofPair === 'second'
      ? [...hands.filter(({ id }) => !shared.opens.includes(id)), FROM_UNDER_THE_SAME]
      : hands;
  };
  const ofHolder = (phase: 'out' | 'in'): FittingStep[] =>
    ways === null
      ? [
          phase === 'out'
            ? step(
                'out',
                'see',
                'See what holds the cell',
                'It may be a lever, clip, spring, bridge, latch or hatch. Record it in stage 3 under “Cell held by”: its steps then appear here.',
                'Levering a cell out before you know what holds it bends a contact or cuts a coil.',
                recipe('out'),
              )
            : step(
                'in',
                'holder',
                'Put the holder back as it was',
                'Compare the holder with your photograph. It must press on the top of the cell, not lie beside or under it.',
                null,
                recipe('in'),
              ),
        ]
      : handsOf(phase)
          .filter(({ id }) => charged === null || !OF_THE_CELL.includes(id) || ways.dangerAt.includes(id))
          .map(({ id, what, how, off, back }) => ({
            ...step(phase, id, ofIt(what), ofIt(how), null, recipe(phase)),
            danger: ways.dangerAt.includes(id) ? ofThisHolder : null,
            off,
            back: back === null ? null : `out-${back}`,
          }));
  const ofCharged = (phase: 'out' | 'in', hands: readonly ChargedHand[]): FittingStep[] =>
    hands.map(({ id, what, how, danger, off, back }) => ({
      ...step(phase, `charged-${id}`, what, how, danger),
      off,
      back: back === null ? null : `out-charged-${back}`,
    }));
  // Off before the first holder is reached, and on again in reverse after the last cell is in.
  const aboveOff = [...new Set(above.off)].map((each): FittingStep => {
    const { off, part, position } = ABOVE_WAYS[each];
    return {
      ...step('out', aboveId(each), off.what, off.how, off.danger),
      off: [{ part, position, count: 1 }],
    };
  });
  const aboveOn = [...new Set(above.on)].reverse().map((each): FittingStep => {
    const { on } = ABOVE_WAYS[each];
    return {
      ...step('in', aboveId(each), on.what, on.how, on.danger),
      back: `out-${aboveId(each)}`,
    };
  });
  const steps: FittingStep[] = [
    ...(further
      ? []
      : [
          step(
            'before',
            'look',
            'Note how everything lies',
            `Photograph ${noneFound ? '' : `${charged === null ? 'cell' : 'accumulator'}, `}insulators, spacer, spring and contacts.${noneFound ? ' No cell was found here.' : ''}`,
          ),
          step(
            'before',
            'hands',
            hands.way.charAt(0).toUpperCase() + hands.way.slice(1),
            hands.reason,
            `Metal across both faces shorts ${charged === null ? 'a cell' : 'an accumulator'}. Do not use steel tweezers on a fresh one.`,
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
    ...(drawing.brace
      ? [
          step(
            'before',
            'brace',
            `Brace the other hand at ${clockWords(turnClock(drawing.brace.clock, 'behind', side), side)}`,
            'Rest your other hand on the rim of the movement, at B on the drawing. If the tool slips, it stops there.',
            towardsCoil ?? unplaced,
          ),
        ]
      : [
          step(
            'before',
            'brace',
            'Brace the other hand',
            'Rest your other hand on the rim of the movement, in the direction you push. If the tool slips, it stops there.',
            towardsCoil ?? unplaced,
          ),
        ]),
    ...ofCharged('out', charged?.beforeHolder ?? []),
    ...aboveOff,
    ...ofHolder('out'),
    ...ofCharged('out', charged?.afterHolder ?? []),
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
    step(
      'in',
      'fresh',
      `Look at the fresh ${it}`,
      charged === null
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
          'A cell fitted upside down drives the circuit backwards.',
        )
      : step(
          'in',
          'polarity',
          `Put the ${place.faceUp} face up`,
          'The wide flat face is +.',
          'A cell fitted upside down drives the circuit backwards.',
        ),
    ...ofCharged('in', charged?.beforeHolderIn ?? []),
    ...ofHolder('in'),
    ...aboveOn,
    ...ofCharged('in', charged?.afterHolderIn ?? []),
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
      charged === null ? 'Watch it run' : 'Give it light or wind it, then watch it run',
      charged === null
        ? runsHow(movement, notSeen)
        : `A new accumulator is nearly empty. Once it has had ${movement.charge?.by === 'rotor' ? 'winding' : 'light'}: ${runsHow(movement, notSeen)}`,
      charged === null
        ? 'Running proves contact and voltage. It does not prove that the cell is the right one.'
        : null,
      recipe('after'),
    ),
  ];
  return { steps, drawing, asks: further ? [] : notSeen };
}
