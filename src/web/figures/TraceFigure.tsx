import type { TraceSample } from '../../core/craft/devices';
import { figure } from '../../core/craft/judgement';
import Curve from './Curve';

interface Props {
  readonly samples: readonly TraceSample[];
  readonly seconds: number;
}

/** The deflection of a case under test as it comes, second by second. */
export default function TraceFigure({ samples, seconds }: Props) {
  const last = samples.at(-1);
  return (
    <Curve
      title="Deflection"
      says={last ? `${last.deflectionUm} µm after ${last.atS} of ${seconds} s` : 'None yet'}
      as="line"
      along={{ label: 'seconds', places: samples.map(({ atS }) => figure(atS)) }}
      up={{ label: 'Deflection', unit: 'µm' }}
      values={samples.map(({ deflectionUm }) => deflectionUm)}
      heightPx={150}
    />
  );
}
