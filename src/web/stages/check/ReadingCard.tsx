import { Box, Stack } from '@mui/material';
import { chemistryOfJob, chemistryOfWell } from '../../../core/advice/health';
import { type Measure, measures, usualLoad } from '../../../core/craft/health';
import { capital } from '../../../core/craft/judgement';
import { entryInWords, readingIn, wellKey, type WellState } from '../../../core/logbook';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { factFields } from '../../kit/factFields';

const checkReading = factFields('check.reading');

const HINT: Readonly<Record<Measure, string>> = {
  restVoltageV: 'of the old cell, out of the watch',
  loadedVoltageV: 'at the stated load and time',
  currentUA: 'through the movement, crown home',
  stoppedCurrentUA: 'the circuit alone, crown pulled',
  coilKOhm: 'across the coil, without cell; OL if the coil is open',
  lowestRunningV: 'lower the supply until it stops',
  rateSPerDay: 'positive when it gains',
};

/** One reading: of the watch, or of one cell of several. */
export function ReadingCard({
  measure,
  well,
}: {
  readonly measure: Measure;
  readonly well: WellState | null;
}) {
  const { state } = useJob();
  const required: readonly string[] = state.required;
  const loaded = measure === 'loadedVoltageV';
  const load = usualLoad(well === null ? chemistryOfJob(state) : chemistryOfWell(well));
  const recorded = readingIn(state.facts, measure, well?.name) ?? null;
  const title = `${capital(measures[measure].words)}${well === null ? '' : `, ${well.name}`}`;
  return (
    <FactCard
      kind="check.reading"
      title={title}
      well={well === null ? null : wellKey(well)}
      recorded={recorded}
      inline
      summary={well !== null && recorded ? `${capital(entryInWords(recorded))}, ${well.name}` : undefined}
      defaults={{
        measure,
        value: undefined,
        loadKOhm: loaded ? load.loadKOhm : null,
        loadSeconds: loaded ? load.seconds : null,
      }}
    >
      <Box sx={{ flex: '1 1 240px', '& .MuiTextField-root': { width: '100%', maxWidth: 'none' } }}>
        <checkReading.MeasureField
          name="value"
          shownAs={title}
          quantity={measures[measure].quantity}
          wanted={required.includes(`check.${measure}`)}
          helper={HINT[measure]}
          from={{ device: 'bench-meter', ask: { ask: 'measure', measure } }}
        />
      </Box>
      {loaded && (
        <Stack direction="row" spacing={1.5} sx={{ flex: '0 1 250px' }}>
          <checkReading.MeasureField name="loadKOhm" quantity="resistanceKOhm" />
          <checkReading.MeasureField name="loadSeconds" quantity="durationS" />
        </Stack>
      )}
    </FactCard>
  );
}
