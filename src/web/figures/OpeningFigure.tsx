import type { JawChoice } from '../../core/craft/opening';
import { clockWords, type MeasuredBack, turnClock, turnedBack, workedFrom } from '../../core/craft/cases';
import { figure } from '../../core/craft/judgement';
import { colours } from '../kit/theme';
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

interface Point {
  readonly x: number;
  readonly y: number;
}

const fromAngle = (angle: number, radius: number): Point => ({
  x: radius * Math.sin(angle),
  y: -radius * Math.cos(angle),
});
const fromClock = (clock: number, radius: number): Point => fromAngle((clock / 12) * 2 * Math.PI, radius);
const degrees = (angle: number): number => (angle * 180) / Math.PI;

/** A measure between two places, its figure on a ground of its own so that no line runs through it. */
function Measure({
  from,
  to,
  words,
  warn = false,
}: {
  from: Point;
  to: Point;
  words: string;
  warn?: boolean;
}) {
  const colour = warn ? colours.cinnabar : colours.ink;
  const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
  const width = words.length * 1.5 + 1.4;
  return (
    <g>
      <line x1={from.x} y1={from.y} x2={to.x} y2={to.y} stroke={colour} strokeWidth="0.35" />
      <rect
        x={middle.x - width / 2}
        y={middle.y - 1.7}
        width={width}
        height="3.4"
        rx="0.6"
        fill={colours.paper}
        stroke={colour}
        strokeWidth="0.15"
      />
      <text
        x={middle.x}
        y={middle.y + 0.95}
        textAnchor="middle"
        fontSize="2.6"
        fontWeight="700"
        fill={colour}
      >
        {words}
      </text>
    </g>
  );
}

/** A square on the pitch circle, turned with it: a notch or a jaw. */
function OnCircle({
  angle,
  radius,
  width,
  depth,
  round,
  ...look
}: {
  angle: number;
  radius: number;
  width: number;
  depth: number;
  round: boolean;
  fill: string;
  stroke: string;
  strokeWidth: string;
}) {
  const { x, y } = fromAngle(angle, radius);
  return round ? (
    <circle cx={x} cy={y} r={width / 2} {...look} />
  ) : (
    <rect
      x={x - width / 2}
      y={y - depth / 2}
      width={width}
      height={depth}
      transform={`rotate(${degrees(angle)} ${x} ${y})`}
      {...look}
    />
  );
}

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
  const notchWidth = back.notchWidthMm ?? 2;
  const pitch = pitchMm === null ? null : pitchMm / 2;
  const stem = crownClock === null ? null : fromClock(crownClock, radius);
  const outside = crownClock === null ? null : fromClock(crownClock, radius + 2.4);
  const at = (index: number | undefined): Point | null =>
    index === undefined || pitch === null || anglesRad[index] === undefined
      ? null
      : fromAngle(anglesRad[index], pitch);
  const [first, second, third] = choice?.notches ?? [];
  const front =
    choice?.jaws === 3
      ? ([at(second), at(third)] as const)
      : choice
        ? ([at(first), at(second)] as const)
        : null;
  const rear = choice?.jaws === 3 ? at(first) : null;
  const frontMiddle =
    front?.[0] && front[1] ? { x: (front[0].x + front[1].x) / 2, y: (front[0].y + front[1].y) / 2 } : null;
  const line = { fill: 'none', stroke: colours.smoke, strokeWidth: '0.25' } as const;
  return (
    <svg
      width={size}
      height={size}
      viewBox={`${-half} ${-half} ${half * 2} ${half * 2}`}
      role="img"
      aria-label={inWords(props)}
      style={{ display: 'block' }}
    >
      {stem && outside && (
        <line
          x1={stem.x}
          y1={stem.y}
          x2={outside.x}
          y2={outside.y}
          stroke={colours.smoke}
          strokeWidth="3.2"
          strokeLinecap="round"
        />
      )}
      {back.kind === 'latched panel' ? (
        <rect
          x={-radius * 0.92}
          y={-radius}
          width={radius * 1.84}
          height={diameter}
          rx="3"
          fill={colours.paper}
          stroke={colours.soot}
          strokeWidth="0.4"
        />
      ) : (
        <circle cx="0" cy="0" r={radius} fill={colours.paper} stroke={colours.soot} strokeWidth="0.4" />
      )}
      {stem && (
        <circle cx={stem.x} cy={stem.y} r="1" fill={colours.tallow} stroke={colours.soot} strokeWidth="0.3" />
      )}
      {Array.from({ length: 12 }, (_, index) => index + 1).map((clock) => {
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
      })}
      {pitch !== null && <circle cx="0" cy="0" r={pitch} {...line} strokeDasharray="0.8 0.8" />}
      {pitch !== null &&
        anglesRad.map((angle, index) => (
          <OnCircle
            key={index}
            angle={angle}
            radius={pitch}
            width={notchWidth}
            depth={2}
            round={holes}
            fill={colours.thread}
            stroke={colours.soot}
            strokeWidth="0.25"
          />
        ))}
      {pitch !== null &&
        anglesRad.map((angle, index) => {
          const { x, y } = fromAngle(angle, pitch - 3.4);
          return (
            <text key={index} x={x} y={y + 0.9} textAnchor="middle" fontSize="2.4" fill={colours.smoke}>
              {index + 1}
            </text>
          );
        })}
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
      {back.kind === 'plate on screws' &&
        Array.from({ length: back.screwCount ?? 4 }, (_, index) => {
          const count = back.screwCount ?? 4;
          const { x, y } = fromAngle((2 * Math.PI * (index + 0.5)) / count, radius - 3.2);
          const slot = (back.slotLengthMm ?? 1.6) / 2;
          return (
            <g key={index}>
              <circle
                cx={x}
                cy={y}
                r={slot + 0.5}
                fill={colours.thread}
                stroke={colours.soot}
                strokeWidth="0.25"
              />
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
        })}
      {back.kind === 'battery hatch' && (
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
      )}
      {choice && jawMm !== null && pitch !== null && (
        <>
          {choice.offCentreMm > 0.005 && frontMiddle && (
            <Measure
              from={{ x: 0, y: 0 }}
              to={frontMiddle}
              words={`off ${figure(choice.offCentreMm)}`}
              warn
            />
          )}
          {front?.[0] && front[1] && (
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
              round={holes}
              fill={index === 0 && choice.jaws === 3 ? colours.soot : colours.tin}
              stroke={colours.soot}
              strokeWidth="0.4"
            />
          ))}
        </>
      )}
      {back.pusherClocks.map((clock) => {
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
      })}
      {back.lipClock !== null && <Lip at={fromClock(back.lipClock, radius)} clock={back.lipClock} />}
      {spotClock !== null && (
        <g transform={`rotate(${spotClock * 30})`}>
          <path
            d={`M -1.8 ${-(half - 0.4)} L 1.8 ${-(half - 0.4)} L 0 ${-(radius - 0.3)} Z`}
            fill={colours.tin}
            stroke={colours.soot}
            strokeWidth="0.4"
          />
        </g>
      )}
      <text x={-half + 0.5} y={half - 0.8} fontSize="2.4" fill={colours.smoke}>
        {fromSide(back)}
      </text>
    </svg>
  );
}

/** The outline a die goes over. */
function Flats({ count, acrossMm }: { readonly count: number; readonly acrossMm: number }) {
  const corner = acrossMm / 2 / Math.cos(Math.PI / count);
  const points = Array.from({ length: count }, (_, index) =>
    fromAngle((2 * Math.PI * (index + 0.5)) / count, corner),
  );
  return (
    <polygon
      points={points.map(({ x, y }) => `${x},${y}`).join(' ')}
      fill="none"
      stroke={colours.ink}
      strokeWidth="0.4"
    />
  );
}

/** A lip or nick at the rim. */
function Lip({ at, clock }: { readonly at: Point; readonly clock: number }) {
  return (
    <rect
      x={at.x - 1.6}
      y={at.y - 0.7}
      width="3.2"
      height="1.4"
      rx="0.5"
      transform={`rotate(${clock * 30} ${at.x} ${at.y})`}
      fill={colours.verdigris}
      stroke={colours.soot}
      strokeWidth="0.25"
    />
  );
}
