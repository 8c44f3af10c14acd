import type { FitOfDies, PressMeasures } from '../../core/craft/closing';
import { figure } from '../../core/craft/judgement';
import { colours } from '../kit/theme';

interface Props {
  readonly dies: FitOfDies;
  readonly measures: PressMeasures;
}

const WIDTH = 320;
const ROW = 24;

/** What lies on what in the press, drawn from below, each as wide as it is. */
export function DieStackFigure({ dies, measures }: Props) {
  const { crystalSide, backSide, stack } = dies;
  if (!crystalSide || !backSide || stack.length === 0) return null;
  const wide: Readonly<Record<string, number>> = {
    [crystalSide.die.name]: crystalSide.die.outerMm,
    [backSide.die.name]: backSide.die.outerMm,
    film: measures.bezelMm ?? 0,
    crystal: measures.crystalMm ?? 0,
    case: measures.caseMm ?? 0,
    back: measures.backMm ?? 0,
  };
  const widest = Math.max(...Object.values(wide));
  const scale = 150 / widest;
  const height = stack.length * ROW + 14;
  const isDie = (name: string): boolean => name === crystalSide.die.name || name === backSide.die.name;
  const innerOf = (name: string): number | null =>
    name === crystalSide.die.name
      ? crystalSide.die.innerMm
      : name === backSide.die.name
        ? backSide.die.innerMm
        : null;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      width="100%"
      style={{ maxWidth: WIDTH }}
      role="img"
      aria-label={`In the press, from below: ${stack.join(', ')}.`}
    >
      {stack.map((name, at) => {
        const y = height - 7 - (at + 1) * ROW;
        const width = (wide[name] ?? 0) * scale;
        const inner = innerOf(name);
        const key = `${name}-${at}`;
        return (
          <g key={key}>
            <rect
              x={84 - width / 2}
              y={name === 'film' ? y + ROW / 2 - 2 : y + 2}
              width={width}
              height={name === 'film' ? 4 : ROW - 4}
              rx="2"
              fill={isDie(name) ? colours.thread : name === 'film' ? colours.ash : colours.tin}
              stroke={colours.soot}
              strokeWidth={isDie(name) ? 2 : 1.2}
            />
            {inner !== null && (
              <rect
                x={84 - (inner * scale) / 2}
                // A hollow die is open towards the watch.
                y={at < stack.length / 2 ? y + 2 : y + ROW / 2}
                width={inner * scale}
                height={ROW / 2 - 2}
                fill={colours.glow}
                stroke={colours.soot}
              />
            )}
            <text
              x="176"
              y={y + ROW / 2 + 5}
              fontSize="13"
              fill={colours.soot}
              fontWeight={isDie(name) ? 700 : 400}
            >
              {at + 1}. {name}
              {isDie(name) || name === 'film' ? '' : ` ${figure(wide[name] ?? 0)} mm`}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
