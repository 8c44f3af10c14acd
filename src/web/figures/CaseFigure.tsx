import type { MarkView } from '../../core/logbook';
import { colours } from '../kit/theme';

export interface CaseMark {
  /** As seen in this view; null for the middle. */
  readonly clock: number | null;
  readonly label: string;
}

interface Props {
  readonly view: MarkView;
  readonly marks: readonly CaseMark[];
  readonly size?: number;
  /** Called with the clock position pointed at, or null for the middle. The keyboard has the field beside it. */
  readonly onPick?: (clock: number | null) => void;
}

const MIDDLE = 100;
const RIM = 72;
const HALF_HOURS = 24;

function place(clock: number | null, view: MarkView): { readonly x: number; readonly y: number } {
  if (clock === null) return { x: MIDDLE, y: MIDDLE };
  // From the side the case is seen with 9 on the left and 3 on the right: hours 9 over 12 to 3 along it.
  if (view === 'side') return { x: MIDDLE + RIM * Math.sin((clock / 12) * 2 * Math.PI), y: MIDDLE };
  const angle = (clock / 12) * 2 * Math.PI;
  return { x: MIDDLE + RIM * Math.sin(angle), y: MIDDLE - RIM * Math.cos(angle) };
}

/** The half hour nearest to a point of the drawing, or null near its middle. */
function clockAt(x: number, y: number): number | null {
  const [dx, dy] = [x - MIDDLE, MIDDLE - y];
  if (Math.hypot(dx, dy) < RIM * 0.4) return null;
  const turns = (Math.atan2(dx, dy) / (2 * Math.PI) + 1) % 1;
  return Math.round(turns * HALF_HOURS) / 2 || 12;
}

function FromTheSide() {
  return (
    <>
      <rect
        x="14"
        y="72"
        width="172"
        height="56"
        rx="14"
        fill={colours.paper}
        stroke={colours.soot}
        strokeWidth="2"
      />
      <line x1="14" y1="112" x2="186" y2="112" stroke={colours.smoke} />
      <path d="M34 72 Q100 52 166 72" fill="none" stroke={colours.smoke} strokeWidth="2" />
    </>
  );
}

function FaceOn({ view }: Pick<Props, 'view'>) {
  return (
    <>
      {[1, 5, 7, 11].map((lug) => {
        const angle = (lug / 12) * 2 * Math.PI;
        return (
          <rect
            key={lug}
            x={MIDDLE + 84 * Math.sin(angle) - 9}
            y={MIDDLE - 84 * Math.cos(angle) - 11}
            width="18"
            height="22"
            rx="4"
            fill={colours.thread}
            stroke={colours.smoke}
          />
        );
      })}
      <rect x={view === 'front' ? 176 : 8} y="92" width="16" height="16" rx="3" fill={colours.smoke} />
      <circle cx="100" cy="100" r="80" fill={colours.paper} stroke={colours.soot} strokeWidth="2" />
      <circle cx="100" cy="100" r={view === 'front' ? 64 : 70} fill="none" stroke={colours.smoke} />
      {[12, 3, 6, 9].map((hour) => {
        const angle = (hour / 12) * 2 * Math.PI;
        return (
          <text
            key={hour}
            x={MIDDLE + 48 * Math.sin(angle)}
            y={MIDDLE - 48 * Math.cos(angle) + 6}
            textAnchor="middle"
            fontSize="16"
            fill={colours.smoke}
          >
            {hour}
          </text>
        );
      })}
    </>
  );
}

/** The case from the front, the back or the side, with numbered marks on it. */
export function CaseFigure({ view, marks, size = 180, onPick }: Props) {
  const seen = marks
    .map(({ clock, label }, index) => `${index + 1} ${label}${clock === null ? '' : ` at ${clock}`}`)
    .join(', ');
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 200 200"
      role="img"
      aria-label={`The case from the ${view}${seen ? `: ${seen}` : ', no marks'}`}
      style={{ cursor: onPick ? 'crosshair' : undefined, maxWidth: '100%' }}
      onClick={(event) => {
        const box = event.currentTarget.getBoundingClientRect();
        const scale = 200 / box.width;
        onPick?.(clockAt((event.clientX - box.left) * scale, (event.clientY - box.top) * scale));
      }}
    >
      {view === 'side' ? <FromTheSide /> : <FaceOn view={view} />}
      {marks.map(({ clock }, index) => {
        const { x, y } = place(clock, view);
        return (
          <g key={index}>
            <rect
              x={x - 10}
              y={y - 10}
              width="20"
              height="20"
              transform={`rotate(45 ${x} ${y})`}
              fill={colours.paper}
              stroke={colours.soot}
              strokeWidth="2"
            />
            <text x={x} y={y + 5.5} textAnchor="middle" fontSize="15" fontWeight="700" fill={colours.soot}>
              {index + 1}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
