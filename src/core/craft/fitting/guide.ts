import { figure } from '../judgement';
import type { Calibre, Coil, Well } from '../movements';
import { type Schools, wayTaken } from '../policy';
import { HOLDER_WAYS } from './holders';

export const FITTING_PHASES = ['before', 'out', 'between', 'in', 'after'] as const;
export type FittingPhase = (typeof FITTING_PHASES)[number];

export interface FittingStep {
  readonly id: string;
  readonly phase: FittingPhase;
  readonly what: string;
  readonly how: string;
  /** Stands at this step and at no other; null: none here. */
  readonly danger: string | null;
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
}

interface FittingQuestion {
  readonly calibre: Calibre;
  readonly well: Well;
  readonly cellDiameterMm: number | null;
  readonly schools: Schools;
  /** What was read on the print inside this very watch. */
  readonly prints: readonly string[];
  /** Whether the watch opens from its front. */
  readonly fromFront: boolean;
  /** Whether the cell found was clean, so that nothing corrosive is met. */
  readonly foundClean: boolean;
  /** Whether another well of this watch was worked before: what holds for all stands there. */
  readonly further: boolean;
  /** Dangers that stand at a well worked before. */
  readonly told: readonly string[];
}

const CELL_MM = 7;
/** A push that slips carries a tool about this far. */
const SLIP_MM = 6;
const DEGREES_AN_HOUR = 30;

const radians = (degrees: number): number => (degrees / 180) * Math.PI;

/** How far along a ray a coil’s keep-clear zone begins, mm; null where the ray misses it. */
function alongTo(
  coil: Coil,
  keepClearMm: number,
  from: { readonly x: number; readonly y: number },
  direction: { readonly x: number; readonly y: number },
): number | null {
  // In the coil’s own frame its zone is a rectangle along the axes.
  const turn = radians(coil.degrees);
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const local = (x: number, y: number) => ({ across: x * cos - y * sin, along: x * sin + y * cos });
  const start = local(from.x - coil.xMm, from.y - coil.yMm);
  const step = local(direction.x, direction.y);
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

function drawingOf({ calibre, well, cellDiameterMm }: FittingQuestion): FittingDrawing {
  const radius = (cellDiameterMm ?? CELL_MM) / 2;
  const angle = radians(well.pushDegrees);
  const direction = { x: Math.sin(angle), y: Math.cos(angle) };
  const from = { x: well.xMm + direction.x * radius, y: well.yMm + direction.y * radius };
  const ahead = calibre.coils.flatMap((coil) => {
    const mm = alongTo(coil, calibre.keepClearMm, from, direction);
    return mm === null ? [] : [mm];
  });
  const coilAheadMm = ahead.length === 0 ? null : Math.min(...ahead);
  const halfMm =
    calibre.widthMm === null ? null : Math.min(calibre.widthMm, calibre.lengthMm ?? Infinity) / 2;
  if (halfMm === null) return { brace: null, coilAheadMm };
  // Where the push comes to, so that a slip ends at the finger; beside it where a coil lies there.
  const degrees = [0, 30, -30, 60, -60, 90, -90].map((off) => well.pushDegrees + off);
  const clear = degrees.find((each) => {
    const [x, y] = [Math.sin(radians(each)) * halfMm, Math.cos(radians(each)) * halfMm];
    return calibre.coils.every(
      (coil) => Math.hypot(coil.xMm - x, coil.yMm - y) > Math.max(coil.lengthMm, coil.widthMm) / 2,
    );
  });
  const braced = clear ?? well.pushDegrees;
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
function resetOf({ calibre, prints }: FittingQuestion): string | null {
  if (calibre.resetContact !== null) return calibre.resetContact;
  const print = [...prints, ...calibre.printed].find((text) => /\b(AC|RESET|R\s?C)\b/i.test(text));
  return print === undefined ? null : `as printed: “${print}”`;
}

/**
 * The hand movements that take this cell out and put one in, for this holder and layout: what must lie under and over
 * it, its polarity, where the hand is braced, the reset contact as book or print names it, the buzzer spring, the
 * switch tab. Each danger stands at its own step and at no other. Source: bench practice; the geometry is a ray from the
 * rim of the cell along the push against the zone kept clear round each coil.
 */
export function fittingGuide(question: FittingQuestion): FittingGuide {
  const { calibre, well, schools, fromFront, foundClean, further, told } = question;
  const ways = HOLDER_WAYS[well.heldBy];
  const drawing = drawingOf(question);
  const hands = wayTaken(schools, 'hands');
  const reset = resetOf(question);
  const buzzer = calibre.contacts.some(({ kind }) => kind === 'buzzer');
  const said = new Set(told);
  const once = (danger: string | null): string | null => {
    if (danger === null || said.has(danger)) return null;
    said.add(danger);
    return danger;
  };
  const step = (
    phase: FittingPhase,
    id: string,
    what: string,
    how: string,
    danger: string | null = null,
  ): FittingStep => ({ id: `${phase}-${id}`, phase, what, how, danger: once(danger) });
  const towardsCoil =
    drawing.coilAheadMm === null
      ? null
      : `The push runs to the coil, ${figure(drawing.coilAheadMm, 1)} mm ahead: a slip cuts its wire. Brace, and use wood or plastic.`;
  const ofHolder = (phase: 'out' | 'in'): FittingStep[] =>
    ways[phase].map(({ id, what, how }) =>
      step(phase, id, what, how, id === ways.dangerAt ? ways.danger : null),
    );
  const steps: FittingStep[] = [
    ...(further
      ? []
      : [
          step(
            'before',
            'look',
            'Note how everything lies',
            'Cell, insulators, spacer, spring and contacts: a photograph says it best.',
          ),
          step(
            'before',
            'hands',
            hands.way.charAt(0).toUpperCase() + hands.way.slice(1),
            hands.reason,
            'Metal across both faces shorts a cell: no steel tweezers on a fresh one.',
          ),
        ]),
    ...(fromFront && well.heldBy !== 'from the dial side'
      ? [
          step(
            'before',
            'dial',
            'Support the rim of the dial',
            'The watch opens from the front: nothing presses on hands or dial.',
          ),
        ]
      : []),
    ...(drawing.brace
      ? [
          step(
            'before',
            'brace',
            `Brace the other hand at ${figure(drawing.brace.clock, 1)} o’clock`,
            'At the rim, where the push would end: B on the drawing.',
            towardsCoil,
          ),
        ]
      : []),
    ...ofHolder('out'),
    step(
      'between',
      'contacts',
      'Look at the empty well',
      'Contacts clean and springy; the negative one stays beneath the cell, unbent.',
      foundClean
        ? null
        : 'Crust is electrolyte: it burns skin and eyes. Gloves, and clean it before anything goes in.',
    ),
    ...(calibre.insulators.length > 0
      ? [
          step(
            'between',
            'insulators',
            'Insulators in place',
            calibre.insulators.join(' '),
            'Left out, the cell shorts through the case.',
          ),
        ]
      : []),
    step(
      'in',
      'polarity',
      `${well.faceUp} face up`,
      'The wide flat face is +.',
      'Turned over it drives the circuit backwards.',
    ),
    ...ofHolder('in'),
    ...(buzzer
      ? [
          step(
            'after',
            'buzzer',
            'Buzzer spring upright',
            'It touches the back and nothing else.',
            'Bent over, the alarm stays silent or shorts.',
          ),
        ]
      : []),
    ...(reset
      ? [
          step(
            'after',
            'reset',
            'Join the reset contact',
            reset,
            'Without it the display starts with nonsense, or not at all.',
          ),
        ]
      : []),
    step(
      'after',
      'runs',
      'See it run',
      calibre.stepIntervalS === null
        ? 'Every segment of the display lights at power-up.'
        : `A step every ${figure(calibre.stepIntervalS)} s; watch longer than one.`,
      'That it runs proves contact and voltage, never that the cell is the right one.',
    ),
  ];
  return { steps, drawing };
}
