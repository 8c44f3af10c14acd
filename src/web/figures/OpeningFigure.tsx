import type { JawChoice } from '../../core/craft/opening';
import { clockWords, type MeasuredBack, turnClock, turnedBack, workedFrom } from '../../core/craft/cases';
import { figure } from '../../core/craft/judgement';
import { colours } from '../kit/theme';
import { fromClock, OnCircle, fromAngle, type Point, Measure, Lip, Flats } from './openingMarks';

interface Props {
  readonly back: MeasuredBack;
  /** As seen from the dial. */
  readonly crownClock: number | null;
  /** Where a knife goes in, seen from the side worked on. */
  readonly spotClock: number | null;
  /** Pitch circle, where the notches stand on it, and how the jaws are set. */
  readonly pitchMm: number | null;
  readonly anglesRad: readonly number[];
  readonly choice: JawChoice | null;
  readonly jawMm: number | null;
  /** To size on a calibrated screen … */
  readonly pxPerMm?: number;
  /** … or as wide as there is room. */
  readonly widthPx?: number;
}

/** A back nobody measured is drawn as large as most are. */
const USUAL_MM = 33;
const MARGIN_MM = 5;

const fromSide = ({ kind }: MeasuredBack): string =>
  workedFrom(kind) === 'behind' ? 'from behind' : 'from the dial';

function inWords({ back, spotClock, choice }: Props): string {
  const set = choice
    ? `, jaws ${figure(choice.separationMm)} mm apart${choice.rearDistanceMm === null ? '' : ` and ${figure(choice.rearDistanceMm)} mm to the rear jaw`}${choice.offCentreMm > 0.005 ? `, ${figure(choice.offCentreMm)} mm off centre` : ''}`
    : spotClock === null
      ? ''
      : `, the tool goes in at ${clockWords(spotClock, workedFrom(back.kind))}`;
  return `The case ${fromSide(back)}, to scale: ${back.kind}${set}`;
}

type OfBack = { readonly back: MeasuredBack; readonly radius: number };

function Outline({ kind, radius }: { readonly kind: MeasuredBack['kind']; readonly radius: number }) {
  return kind === 'latched panel' ? (
    <rect
      x={-radius * 0.92}
      y={-radius}
      width={radius * 1.84}
      height={radius * 2}
      rx="3"
      fill={colours.paper}
      stroke={colours.soot}
      strokeWidth="0.4"
    />
  ) : (
    <circle cx="0" cy="0" r={radius} fill={colours.paper} stroke={colours.soot} strokeWidth="0.4" />
  );
}

function Stem({ clock, radius }: { readonly clock: number; readonly radius: number }) {
  const stem = fromClock(clock, radius);
  const outside = fromClock(clock, radius + 2.4);
  return (
    <line
      x1={stem.x}
      y1={stem.y}
      x2={outside.x}
      y2={outside.y}
      stroke={colours.smoke}
      strokeWidth="3.2"
      strokeLinecap="round"
    />
  );
}

function StemHole({ clock, radius }: { readonly clock: number; readonly radius: number }) {
  const stem = fromClock(clock, radius);
  return (
    <circle cx={stem.x} cy={stem.y} r="1" fill={colours.tallow} stroke={colours.soot} strokeWidth="0.3" />
  );
}

function Hours({ radius }: { readonly radius: number }) {
  return Array.from({ length: 12 }, (_, index) => index + 1).map((clock) => {
    const from = fromClock(clock, radius - 0.8);
    const to = fromClock(clock, radius - (clock % 3 === 0 ? 1.9 : 1.4));
    return (
      <line
        key={clock}
        x1={from.x}
        y1={from.y}
        x2={to.x}
        y2={to.y}
        stroke={colours.smoke}
        strokeWidth="0.2"
      />
    );
  });
}

/** The pitch circle and what stands on it, numbered. */
function Notches({
  pitch,
  anglesRad,
  widthMm,
  round,
}: {
  readonly pitch: number;
  readonly anglesRad: readonly number[];
  readonly widthMm: number;
  readonly round: boolean;
}) {
  return (
    <>
      <circle
        cx="0"
        cy="0"
        r={pitch}
        fill="none"
        stroke={colours.smoke}
        strokeWidth="0.25"
        strokeDasharray="0.8 0.8"
      />
      {anglesRad.map((angle, index) => (
        <OnCircle
          key={index}
          angle={angle}
          radius={pitch}
          width={widthMm}
          depth={2}
          round={round}
          fill={colours.thread}
          stroke={colours.soot}
          strokeWidth="0.25"
        />
      ))}
      {anglesRad.map((angle, index) => {
        const { x, y } = fromAngle(angle, pitch - 3.4);
        return (
          <text key={index} x={x} y={y + 0.9} textAnchor="middle" fontSize="2.4" fill={colours.smoke}>
            {index + 1}
          </text>
        );
      })}
    </>
  );
}

function Screws({ back, radius }: OfBack) {
  return Array.from({ length: back.screwCount ?? 4 }, (_, index) => {
    const count = back.screwCount ?? 4;
    const { x, y } = fromAngle((2 * Math.PI * (index + 0.5)) / count, radius - 3.2);
    const slot = (back.slotLengthMm ?? 1.6) / 2;
    return (
      <g key={index}>
        <circle cx={x} cy={y} r={slot + 0.5} fill={colours.thread} stroke={colours.soot} strokeWidth="0.25" />
        <line
          x1={x - slot}
          y1={y}
          x2={x + slot}
          y2={y}
          stroke={colours.soot}
          strokeWidth={back.slotWidthMm ?? 0.3}
        />
        <text x={x} y={y - slot - 1} textAnchor="middle" fontSize="2.4" fill={colours.soot}>
          {index + 1}
        </text>
      </g>
    );
  });
}

function Hatch({ back, radius }: OfBack) {
  return (
    <>
      <circle
        cx={radius * 0.3}
        cy={radius * 0.25}
        r={(back.slotLengthMm ?? 7) / 2 + 1.2}
        fill={colours.tallow}
        stroke={colours.soot}
        strokeWidth="0.35"
      />
      <line
        x1={radius * 0.3 - (back.slotLengthMm ?? 7) / 2}
        y1={radius * 0.25}
        x2={radius * 0.3 + (back.slotLengthMm ?? 7) / 2}
        y2={radius * 0.25}
        stroke={colours.soot}
        strokeWidth={back.slotWidthMm ?? 1}
      />
    </>
  );
}

/** How the jaws are set, with the measures that set them. */
function Jaws({
  choice,
  jawMm,
  pitch,
  anglesRad,
  round,
}: {
  readonly choice: JawChoice;
  readonly jawMm: number;
  readonly pitch: number;
  readonly anglesRad: readonly number[];
  readonly round: boolean;
}) {
  const at = (index: number | undefined): Point | null =>
    index === undefined || anglesRad[index] === undefined ? null : fromAngle(anglesRad[index], pitch);
  const [first, second, third] = choice.notches;
  const front = choice.jaws === 3 ? ([at(second), at(third)] as const) : ([at(first), at(second)] as const);
  const rear = choice.jaws === 3 ? at(first) : null;
  const frontMiddle =
    front[0] && front[1] ? { x: (front[0].x + front[1].x) / 2, y: (front[0].y + front[1].y) / 2 } : null;
  return (
    <>
      {choice.offCentreMm > 0.005 && frontMiddle && (
        <Measure from={{ x: 0, y: 0 }} to={frontMiddle} words={`off ${figure(choice.offCentreMm)}`} warn />
      )}
      {front[0] && front[1] && (
        <Measure from={front[0]} to={front[1]} words={`${figure(choice.separationMm)} mm`} />
      )}
      {rear && frontMiddle && (
        <Measure from={rear} to={frontMiddle} words={`${figure(choice.rearDistanceMm ?? 0)} mm`} />
      )}
      {choice.notches.map((notch, index) => (
        <OnCircle
          key={notch}
          angle={anglesRad[notch] ?? 0}
          radius={pitch}
          width={jawMm}
          depth={3.2}
          round={round}
          fill={index === 0 && choice.jaws === 3 ? colours.soot : colours.tin}
          stroke={colours.soot}
          strokeWidth="0.4"
        />
      ))}
    </>
  );
}

function Pushers({ clocks, radius }: { readonly clocks: readonly number[]; readonly radius: number }) {
  return clocks.map((clock) => {
    const { x, y } = fromClock(clock, radius + 1);
    return (
      <rect
        key={clock}
        x={x - 1.4}
        y={y - 1}
        width="2.8"
        height="2"
        rx="0.4"
        transform={`rotate(${clock * 30} ${x} ${y})`}
        fill={colours.smoke}
      />
    );
  });
}

/** Where a knife goes in. */
function Spot({
  clock,
  radius,
  half,
}: {
  readonly clock: number;
  readonly radius: number;
  readonly half: number;
}) {
  return (
    <g transform={`rotate(${clock * 30})`}>
      <path
        d={`M -1.8 ${-(half - 0.4)} L 1.8 ${-(half - 0.4)} L 0 ${-(radius - 0.3)} Z`}
        fill={colours.tin}
        stroke={colours.soot}
        strokeWidth="0.4"
      />
    </g>
  );
}

/** The side worked on, to scale: what it opens by, where tool and jaws go, lip and stem. */
export function OpeningFigure(props: Props) {
  const { back: asSeen, spotClock, pitchMm, anglesRad, choice, jawMm, widthPx = 300 } = props;
  const side = workedFrom(asSeen.kind);
  const back = turnedBack(asSeen, side);
  const crownClock = props.crownClock === null ? null : turnClock(props.crownClock, 'the dial', side);
  const diameter = back.diameterMm ?? Math.max(USUAL_MM, (pitchMm ?? 0) + 3);
  const radius = diameter / 2;
  const half = radius + MARGIN_MM;
  const size = props.pxPerMm === undefined ? widthPx : half * 2 * props.pxPerMm;
  const holes = back.kind === 'screwed, round holes';
  const pitch = pitchMm === null ? null : pitchMm / 2;
  return (
    <svg
      width={size}
      height={size}
      viewBox={`${-half} ${-half} ${half * 2} ${half * 2}`}
      role="img"
      aria-label={inWords(props)}
      style={{ display: 'block' }}
    >
      {crownClock !== null && <Stem clock={crownClock} radius={radius} />}
      <Outline kind={back.kind} radius={radius} />
      {crownClock !== null && <StemHole clock={crownClock} radius={radius} />}
      <Hours radius={radius} />
      {pitch !== null && (
        <Notches pitch={pitch} anglesRad={anglesRad} widthMm={back.notchWidthMm ?? 2} round={holes} />
      )}
      {back.kind === 'screwed, patterned' && back.flatCount !== null && back.acrossMm !== null && (
        <Flats count={back.flatCount} acrossMm={back.acrossMm} />
      )}
      {back.kind === 'screwed, patterned' && back.acrossMm !== null && (
        <Measure
          from={{ x: 0, y: -back.acrossMm / 2 }}
          to={{ x: 0, y: back.acrossMm / 2 }}
          words={`${figure(back.acrossMm)} mm`}
        />
      )}
      {back.kind === 'plate on screws' && <Screws back={back} radius={radius} />}
      {back.kind === 'battery hatch' && <Hatch back={back} radius={radius} />}
      {choice && jawMm !== null && pitch !== null && (
        <Jaws choice={choice} jawMm={jawMm} pitch={pitch} anglesRad={anglesRad} round={holes} />
      )}
      <Pushers clocks={back.pusherClocks} radius={radius} />
      {back.lipClock !== null && <Lip at={fromClock(back.lipClock, radius)} clock={back.lipClock} />}
      {spotClock !== null && <Spot clock={spotClock} radius={radius} half={half} />}
      <text x={-half + 0.5} y={half - 0.8} fontSize="2.4" fill={colours.smoke}>
        {fromSide(back)}
      </text>
    </svg>
  );
}
