import type { TraceSample } from '../../core/craft/devices';
import { colours } from '../kit/theme';

interface Props {
  readonly samples: readonly TraceSample[];
  readonly seconds: number;
}

const WIDTH = 420;
const HEIGHT = 110;

/** The deflection of a case under test as it comes, second by second; the lower edge is none. */
export function TraceFigure({ samples, seconds }: Props) {
  const most = Math.max(1, ...samples.map((sample) => sample.deflectionUm)) * 1.1;
  const line = samples
    .map(
      ({ atS, deflectionUm }) =>
        `${((atS / seconds) * WIDTH).toFixed(1)},${(HEIGHT - (deflectionUm / most) * HEIGHT).toFixed(1)}`,
    )
    .join(' ');
  const last = samples.at(-1);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={
        last ? `Deflection ${last.deflectionUm} µm after ${last.atS} of ${seconds} s` : 'No deflection yet'
      }
      style={{
        width: '100%',
        maxWidth: WIDTH,
        background: colours.paper,
        border: `1px solid ${colours.thread}`,
      }}
    >
      <polyline points={line} fill="none" stroke={colours.ink} strokeWidth="2" />
    </svg>
  );
}
