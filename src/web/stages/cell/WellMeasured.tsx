import { Stack } from '@mui/material';
import { capital } from '../../../core/craft/judgement';
import { type Payloads, wellKey, type WellState } from '../../../core/logbook';
import { FactCard } from '../../job/FactCard';
import { fieldsOf } from '../../kit/fields';
import { wellTitle } from './wells';

const cellWellMeasured = fieldsOf<Payloads['cell.well-measured']>();

/** The well as a witness of its own: it names no cell, but it rules most of them out. */
export function WellMeasuredCard({ well }: { readonly well: WellState }) {
  return (
    <FactCard
      kind="cell.well-measured"
      title={capital(`${wellTitle(well)}the well measured`)}
      recorded={well.measured}
      well={wellKey(well)}
      defaults={{ diameterMm: undefined, depthMm: undefined }}
    >
      <Stack direction="row" spacing={1.5} sx={{ flexWrap: 'wrap' }}>
        <cellWellMeasured.MeasureField name="diameterMm" label="Across the well" quantity="lengthMm" />
        <cellWellMeasured.MeasureField
          name="depthMm"
          label="Depth of the well"
          quantity="lengthMm"
          helper="from the lower contact to where the holder lies"
        />
      </Stack>
    </FactCard>
  );
}
