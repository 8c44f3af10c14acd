import { colours } from '../kit/theme';

interface Props {
  readonly code: string;
  readonly diameterMm: number;
  readonly heightMm: number;
  /** Pixels for a millimetre. */
  readonly scale?: number;
}

/** A cell from the side, to scale against others drawn with the same scale. */
export function CellFigure({ code, diameterMm, heightMm, scale = 8 }: Props) {
  const [width, height] = [diameterMm * scale, heightMm * scale];
  return (
    <svg
      width={width + 4}
      height={height + 4}
      viewBox={`-2 -2 ${width + 4} ${height + 4}`}
      role="img"
      aria-label={`${code} from the side, ${diameterMm} by ${heightMm} mm`}
    >
      <rect
        x="0"
        y={height * 0.22}
        width={width}
        height={height * 0.78}
        rx="2"
        fill={colours.thread}
        stroke={colours.soot}
        strokeWidth="1.5"
      />
      <rect
        x={width * 0.14}
        y="0"
        width={width * 0.72}
        height={height * 0.26}
        rx="1.5"
        fill={colours.paper}
        stroke={colours.soot}
        strokeWidth="1.5"
      />
    </svg>
  );
}
