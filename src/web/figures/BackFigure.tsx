import { colours } from '../app/theme';

interface Props {
  /** As seen from the dial; drawn mirrored, since the back is seen from behind. */
  readonly crownClock: number | null;
  readonly spotClock: number | null;
  readonly size?: number;
}

function at(clock: number, radius: number): { readonly x: number; readonly y: number } {
  const angle = (clock / 12) * 2 * Math.PI;
  return { x: 100 + radius * Math.sin(angle), y: 100 - radius * Math.cos(angle) };
}

/** The case from behind: clock positions, crown, lugs, and where the tool goes in. */
export function BackFigure({ crownClock, spotClock, size = 190 }: Props) {
  const crown = crownClock === null ? null : at((12 - crownClock) % 12, 84);
  const spot = spotClock === null ? null : at(spotClock, 76);
  const outside = spotClock === null ? null : at(spotClock, 98);
  const label =
    spotClock === null
      ? 'The case from behind'
      : `The case from behind: the tool goes in at ${spotClock} o’clock`;
  return (
    <svg width={size} height={size} viewBox="0 0 200 200" role="img" aria-label={label}>
      {[11, 1, 5, 7].map((clock) => {
        const lug = at(clock, 84);
        return (
          <rect
            key={clock}
            x={lug.x - 10}
            y={lug.y - 12}
            width="20"
            height="24"
            rx="4"
            fill={colours.thread}
            stroke={colours.smoke}
          />
        );
      })}
      {crown && <rect x={crown.x - 8} y={crown.y - 9} width="16" height="18" rx="3" fill={colours.smoke} />}
      <circle cx="100" cy="100" r="78" fill={colours.paper} stroke={colours.soot} strokeWidth="2" />
      <circle cx="100" cy="100" r="66" fill="none" stroke={colours.smoke} />
      {Array.from({ length: 12 }, (_, index) => index + 1).map((clock) => {
        const figure = at(clock, 54);
        return (
          <text
            key={clock}
            x={figure.x}
            y={figure.y + 5}
            textAnchor="middle"
            fontSize="14"
            fill={colours.soot}
          >
            {clock}
          </text>
        );
      })}
      {spot && outside && (
        <>
          <line
            x1={outside.x}
            y1={outside.y}
            x2={spot.x}
            y2={spot.y}
            stroke={colours.cinnabar}
            strokeWidth="5"
          />
          <circle
            cx={spot.x}
            cy={spot.y}
            r="7"
            fill={colours.beeswax}
            stroke={colours.soot}
            strokeWidth="2"
          />
        </>
      )}
      <text x="100" y="105" textAnchor="middle" fontSize="12" fill={colours.smoke}>
        from behind
      </text>
    </svg>
  );
}
