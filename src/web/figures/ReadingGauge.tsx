import type { Gauge } from '../../core/craft/health';
import { figure } from '../../core/craft/judgement';
import { colours } from '../kit/theme';

const WIDTH = 280;
const HEIGHT = 46;
const LINE_Y = 20;

interface Props {
  readonly gauge: Gauge;
  readonly title: string;
  readonly unit: string;
}

/** A reading on its scale: the range it should lie in, its limits, and what earlier visits read as ticks. */
export function ReadingGauge({ gauge, title, unit }: Props) {
  const { from, to, range, limits, value, earlier } = gauge;
  const at = (each: number): number => 6 + ((each - from) / (to - from)) * (WIDTH - 12);
  const digits = to - from < 1 ? 2 : to - from < 20 ? 1 : 0;
  const said = [
    `${title}: ${figure(value, 3)} ${unit}`,
    range ? `should lie between ${figure(range.from, digits)} and ${figure(range.to, digits)}` : '',
    earlier.length > 0 ? `earlier visits: ${earlier.map((each) => figure(each, 3)).join(', ')}` : '',
  ].filter(Boolean);
  const x = at(value);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={said.join('; ')}
      style={{ display: 'block', width: '100%', maxWidth: WIDTH, marginTop: 4 }}
    >
      {range && (
        <rect
          x={at(range.from)}
          width={Math.max(0, at(range.to) - at(range.from))}
          y={LINE_Y - 5}
          height={10}
          fill={colours.verdigris}
          opacity={0.45}
        />
      )}
      <line x1={6} x2={WIDTH - 6} y1={LINE_Y} y2={LINE_Y} stroke={colours.soot} strokeWidth={1.5} />
      {limits.map((limit) => (
        <g key={limit}>
          <line
            x1={at(limit)}
            x2={at(limit)}
            y1={LINE_Y - 9}
            y2={LINE_Y + 9}
            stroke={colours.cinnabar}
            strokeWidth={2.5}
          />
          <text x={at(limit)} y={HEIGHT - 3} fontSize={13} textAnchor="middle" fill={colours.soot}>
            {figure(limit, 3)}
          </text>
        </g>
      ))}
      {earlier.map((each, index) => (
        <line
          key={`${index} ${each}`}
          x1={at(each)}
          x2={at(each)}
          y1={LINE_Y - 6}
          y2={LINE_Y + 6}
          stroke={colours.smoke}
          strokeWidth={2}
        />
      ))}
      <path d={`M${x} ${LINE_Y - 3} l-6 -12 h12 z`} fill={colours.soot} stroke={colours.paper} />
    </svg>
  );
}
