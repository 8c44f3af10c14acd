import type { Calibre } from '../../core/movements';
import { colours } from '../app/theme';

interface Props {
  readonly calibre: Calibre;
  /** Diameter of each well's cell in mm, by well. */
  readonly cellDiameterMm: (cellCode: string) => number | null;
  readonly size?: number;
  /** Places marked on it, millimetres from the centre. */
  readonly spots?: readonly { readonly xMm: number; readonly yMm: number }[];
  readonly onPick?: (spot: { readonly xMm: number; readonly yMm: number }) => void;
}

/** The layout of a calibre seen from the back, to scale: outline, wells, coils to keep clear of, and the push. */
export function CalibreFigure({ calibre, cellDiameterMm, size = 220, spots = [], onPick }: Props) {
  const halfMm = Math.max(calibre.widthMm, calibre.lengthMm) / 2 + 1.5;
  return (
    <svg
      width={size}
      height={size}
      viewBox={`${-halfMm} ${-halfMm} ${2 * halfMm} ${2 * halfMm}`}
      role="img"
      aria-label={`Layout of ${calibre.code} from behind, ${calibre.widthMm} by ${calibre.lengthMm} mm: ${calibre.wells.length} cell place${calibre.wells.length > 1 ? 's' : ''}, ${calibre.coils.length} coil${calibre.coils.length === 1 ? '' : 's'} to keep clear of${spots.length > 0 ? `, ${spots.length} marked` : ''}`}
      style={{ cursor: onPick ? 'crosshair' : undefined }}
      onClick={(event) => {
        const box = event.currentTarget.getBoundingClientRect();
        const mm = (2 * halfMm) / box.width;
        const tenth = (value: number): number => Math.round(value * 10) / 10;
        onPick?.({
          xMm: tenth((event.clientX - box.left) * mm - halfMm),
          yMm: tenth(halfMm - (event.clientY - box.top) * mm),
        });
      }}
    >
      <defs>
        <pattern
          id={`coil-${calibre.id}`}
          width="0.7"
          height="0.7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" y1="0" x2="0" y2="0.7" stroke={colours.cinnabar} strokeWidth="0.28" />
        </pattern>
      </defs>
      {calibre.shape === 'round' ? (
        <circle r={calibre.widthMm / 2} fill={colours.paper} stroke={colours.soot} strokeWidth="0.22" />
      ) : (
        <rect
          x={-calibre.widthMm / 2}
          y={-calibre.lengthMm / 2}
          width={calibre.widthMm}
          height={calibre.lengthMm}
          rx="3"
          fill={colours.paper}
          stroke={colours.soot}
          strokeWidth="0.22"
        />
      )}
      {calibre.coils.map((coil, index) => (
        <g key={index} transform={`translate(${coil.xMm} ${-coil.yMm}) rotate(${coil.degrees})`}>
          <rect
            x={-coil.widthMm / 2}
            y={-coil.lengthMm / 2}
            width={coil.widthMm}
            height={coil.lengthMm}
            fill={`url(#coil-${calibre.id})`}
            stroke={colours.cinnabar}
            strokeWidth="0.2"
          />
        </g>
      ))}
      {calibre.wells.map((well) => {
        const radius = (calibre.charge?.diameterMm ?? cellDiameterMm(well.cellCode) ?? 7) / 2;
        const angle = (well.pushDegrees / 180) * Math.PI;
        const [dx, dy] = [Math.sin(angle), -Math.cos(angle)];
        const [x, y] = [well.xMm, -well.yMm];
        return (
          <g key={well.name}>
            <circle
              cx={x}
              cy={y}
              r={radius}
              fill={colours.beeswax}
              fillOpacity="0.55"
              stroke={colours.soot}
              strokeWidth="0.2"
            />
            <text
              x={x}
              y={y + radius * 0.35}
              textAnchor="middle"
              fontSize={radius}
              fontWeight="700"
              fill={colours.soot}
            >
              {well.faceUp}
            </text>
            <line
              x1={x - dx * radius * 0.95}
              y1={y - dy * radius * 0.95}
              x2={x + dx * radius * 1.15}
              y2={y + dy * radius * 1.15}
              stroke={colours.ink}
              strokeWidth="0.3"
              strokeDasharray="0.8 0.5"
            />
            <circle cx={x + dx * radius * 1.2} cy={y + dy * radius * 1.2} r="0.55" fill={colours.ink} />
          </g>
        );
      })}
      {spots.map(({ xMm, yMm }, index) => (
        <rect
          key={index}
          x={xMm - 0.9}
          y={-yMm - 0.9}
          width="1.8"
          height="1.8"
          transform={`rotate(45 ${xMm} ${-yMm})`}
          fill={colours.cinnabar}
          stroke={colours.paper}
          strokeWidth="0.25"
        />
      ))}
    </svg>
  );
}
