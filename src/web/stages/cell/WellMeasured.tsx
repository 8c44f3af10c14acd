import { Stack } from '@mui/material';
import { capital } from '../../../core/craft/judgement';
import { wellKey, type WellState } from '../../../core/logbook';
import { FactCard } from '../../job/FactCard';
import { factFields } from '../../kit/factFields';

import { wellTitle } from './wells';

const cellWellMeasured = factFields('cell.well-measured');

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
        <cellWellMeasured.MeasureField name="diameterMm" quantity="lengthMm" />
        <cellWellMeasured.MeasureField
          name="depthMm"
          quantity="lengthMm"
          helper="from the lower contact to where the holder lies"
        />
      </Stack>
    </FactCard>
  );
}
