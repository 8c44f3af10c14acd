import { freeDepthMm, type FitOfRing, type Groove, grooveWidthMm, LIMITS } from '../../core/craft/gaskets';
import { figure } from '../../core/craft/judgement';
import { colours } from '../kit/theme';

interface Props {
  readonly groove: Groove;
  readonly code: string;
  readonly fit: FitOfRing;
  readonly sectionMm: number;
}

const WIDTH = 320;
const BASE = 118;

/** The groove in the case, under the back where it is shut. */
function GrooveAt({
  centre,
  width,
  depth,
  lid = false,
}: {
  readonly centre: number;
  readonly width: number;
  readonly depth: number;
  readonly lid?: boolean;
}) {
  const [left, right] = [centre - width / 2, centre + width / 2];
  const top = BASE - depth;
  return (
    <>
      <path
        d={`M ${left - 14} ${top} H ${left} V ${BASE} H ${right} V ${top} H ${right + 14} V ${BASE + 12} H ${left - 14} Z`}
        fill={colours.tin}
        stroke={colours.soot}
        strokeWidth="1.5"
      />
      {lid && (
        <rect
          x={left - 14}
          y={top - 13}
          width={right - left + 28}
          height="12"
          fill={colours.tin}
          stroke={colours.soot}
          strokeWidth="1.5"
        />
      )}
    </>
  );
}

/** The ring beside its groove, cut through and to scale: new, stretched in its groove, and squeezed by the back. */
export function GrooveFigure({ groove, code, fit, sectionMm }: Props) {
  const free = freeDepthMm(groove);
  const gap = grooveWidthMm(groove);
  const widest = Math.max(gap, sectionMm * 1.3);
  const scale = Math.min(64 / widest, 84 / Math.max(sectionMm, free, 0.01));
  // Squeezed its area stays: a body with round ends between bottom and back.
  const area = (Math.PI * fit.lyingMm ** 2) / 4;
  const height = Math.min(fit.lyingMm, free);
  const across = Math.max(height, (area - (Math.PI * height ** 2) / 4) / height + height);
  const [least, most] = LIMITS.squeeze.good.map((percent) => free / (1 - percent / 100)) as [number, number];
  const places = [52, 150, 258] as const;
  const ring = { fill: colours.soot, fillOpacity: 0.78, stroke: colours.soot };
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 158`}
      width="100%"
      style={{ maxWidth: WIDTH }}
      role="img"
      aria-label={`${code} in section: ${figure(sectionMm)} mm new, ${figure(fit.lyingMm, 3)} mm fitted, squeezed ${figure(fit.squeeze.percent, 1)} % in a groove ${figure(gap)} mm wide and ${figure(free)} mm deep; good from ${least.toFixed(2)} to ${most.toFixed(2)} mm.`}
    >
      <circle cx={places[0]} cy={BASE - (sectionMm * scale) / 2} r={(sectionMm * scale) / 2} {...ring} />
      <line x1="22" x2="82" y1={BASE} y2={BASE} stroke={colours.edge} />
      {[LIMITS.squeeze.borderline, LIMITS.squeeze.good].map((range, at) => {
        const [thin, thick] = range.map((percent) => (free / (1 - percent / 100)) * scale) as [
          number,
          number,
        ];
        return (
          <rect
            key={range[0]}
            x={places[1] - 46}
            y={BASE - thick}
            width="92"
            height={thick - thin}
            fill={at === 0 ? colours.amber : colours.verdigris}
            fillOpacity={at === 0 ? 0.35 : 0.55}
          />
        );
      })}
      <GrooveAt centre={places[1]} width={gap * scale} depth={free * scale} />
      <circle cx={places[1]} cy={BASE - (fit.lyingMm * scale) / 2} r={(fit.lyingMm * scale) / 2} {...ring} />
      <GrooveAt centre={places[2]} width={gap * scale} depth={free * scale} lid />
      <rect
        x={places[2] - (across * scale) / 2}
        y={BASE - height * scale}
        width={across * scale}
        height={height * scale}
        rx={(height * scale) / 2}
        {...ring}
        {...(across > gap + 1e-9 ? { fill: colours.cinnabar, stroke: colours.cinnabar } : {})}
      />
      {(['new', 'fitted', 'squeezed'] as const).map((words, at) => (
        <text key={words} x={places[at] ?? 0} y="148" textAnchor="middle" fontSize="13" fill={colours.soot}>
          {words}
        </text>
      ))}
      <text x={places[1]} y="14" textAnchor="middle" fontSize="12" fill={colours.verdigris}>
        good {least.toFixed(2)} to {most.toFixed(2)} mm
      </text>
    </svg>
  );
}
