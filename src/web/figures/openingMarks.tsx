import { colours } from '../kit/theme';

export interface Point {
  readonly x: number;
  readonly y: number;
}

export const fromAngle = (angle: number, radius: number): Point => ({
  x: radius * Math.sin(angle),
  y: -radius * Math.cos(angle),
});

export const fromClock = (clock: number, radius: number): Point =>
  fromAngle((clock / 12) * 2 * Math.PI, radius);
const degrees = (angle: number): number => (angle * 180) / Math.PI;

/** A measure between two places, its figure on a ground of its own so that no line runs through it. */
export function Measure({
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
export function OnCircle({
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

/** The outline a die goes over. */
export function Flats({ count, acrossMm }: { readonly count: number; readonly acrossMm: number }) {
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
export function Lip({ at, clock }: { readonly at: Point; readonly clock: number }) {
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
