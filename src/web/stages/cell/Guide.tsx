import type { ReactNode } from 'react';
import { Box, Button, Checkbox, Paper, Stack, Typography } from '@mui/material';
import { FITTING_PHASES, type FittingPhase, fittingGuide, type FittingStep } from '../../../core/fitting';
import type { WellState } from '../../../core/logbook';
import type { Calibre, Well } from '../../../core/movements';
import { Caution } from '../../app/Lamp';
import { useKey } from '../../app/keys/KeysProvider';
import { colours } from '../../app/theme';
import { CalibreFigure } from '../../figures/CalibreFigure';
import { useJob } from '../../job/JobContext';
import { wellKey, wellTitle } from './wells';

const PHASE: Readonly<Record<FittingPhase, string>> = {
  before: 'Before',
  out: 'Out',
  between: 'The empty well',
  in: 'In',
  after: 'After',
};

/** The hand movements out and in for this holder and layout, ticked one by one or all as shown. */
export function Guide({
  calibre,
  well,
  place,
  keyed,
}: {
  readonly calibre: Calibre;
  readonly well: WellState;
  readonly place: Well;
  /** Whether the key for all as shown is this guide’s: with two wells it is the first one’s. */
  readonly keyed: boolean;
}) {
  const { state, record, technician, context, book } = useJob();
  const { facts } = state;
  const { steps, drawing } = fittingGuide({
    calibre,
    well: place,
    cellDiameterMm: book.cell(place.cellCode)?.diameterMm ?? null,
    schools: context.policy.schools,
    prints: facts.prints.map(({ payload }) => payload.text),
    fromFront: facts.back?.payload.kind === 'opens from the front',
    foundClean: well.found?.payload.condition === 'clean' || well.found?.payload.marking === null,
    further: !keyed,
  });
  const isDone = (step: FittingStep): boolean => facts.fittingDone.has(`${well.name}:${step.id}`);
  const left = steps.filter((step) => !isDone(step));
  const done = async (which: readonly FittingStep[]): Promise<void> => {
    if (which.length === 0) return;
    await record(
      'cell.steps',
      { steps: which.map(({ id }) => id), asShown: which.length > 1 },
      { well: wellKey(well) },
    );
  };
  return (
    <Paper component="section" aria-label={`${wellTitle(well)}fitting guide`} sx={{ p: 2 }}>
      <Stack direction="row" sx={{ alignItems: 'baseline', justifyContent: 'space-between', mb: 0.5 }}>
        <Typography variant="h3" component="h2">
          {wellTitle(well) === '' ? 'Fitting guide' : `Fitting guide, ${well.name}`}: {place.heldBy}
        </Typography>
        <Typography color="text.secondary">
          {steps.length - left.length} of {steps.length} done
        </Typography>
      </Stack>
      <Folded folded={left.length === 0}>
        <Box sx={{ columnCount: { xs: 1, md: 2 }, columnGap: 2, '& > *': { breakInside: 'avoid' } }}>
          <CalibreFigure
            calibre={{ ...calibre, wells: [place] }}
            cellDiameterMm={(code) => book.cell(code)?.diameterMm ?? null}
            brace={drawing.brace}
            size={200}
          />
          {FITTING_PHASES.map((phase) => {
            const own = steps.filter((step) => step.phase === phase);
            return own.length === 0 ? null : (
              <Box key={phase} sx={{ borderTop: `1px solid ${colours.thread}`, pt: 0.5, mb: 0.5 }}>
                <Typography variant="body2" color="text.secondary">
                  {PHASE[phase]}
                </Typography>
                <Stack component="ol" sx={{ listStyle: 'none', p: 0, m: 0 }}>
                  {own.map((step) => (
                    <Stack component="li" key={step.id} direction="row" sx={{ alignItems: 'flex-start' }}>
                      <Checkbox
                        checked={isDone(step)}
                        disabled={technician === null || isDone(step)}
                        onChange={() => void done([step])}
                        slotProps={{ input: { 'aria-label': `${step.what}: done` } }}
                        sx={{ mt: -0.75 }}
                      />
                      <Box sx={{ minWidth: 0 }}>
                        <Typography>
                          <strong>{step.what}.</strong> {isDone(step) ? '' : step.how}
                        </Typography>
                        {step.danger && !isDone(step) && (
                          <Box sx={{ my: 0.5 }}>
                            <Caution>{step.danger}</Caution>
                          </Box>
                        )}
                      </Box>
                    </Stack>
                  ))}
                </Stack>
              </Box>
            );
          })}
        </Box>
      </Folded>
      {keyed && <AllKey onAll={() => void done(left)} />}
      {left.length > 0 && (
        <Button
          variant="outlined"
          sx={{ mt: 1 }}
          disabled={technician === null}
          onClick={() => void done(left)}
        >
          All done as shown{keyed ? ' (a)' : ''}
        </Button>
      )}
    </Paper>
  );
}

function AllKey({ onAll }: { readonly onAll: () => void }) {
  useKey('a', 'All fitting steps done as shown', onAll);
  return null;
}

/** Once all is done the guide is only looked up. */
function Folded({ folded, children }: { readonly folded: boolean; readonly children: ReactNode }) {
  if (!folded) return children;
  return (
    <Box component="details" sx={{ '& summary': { cursor: 'pointer', minHeight: 36, fontWeight: 700 } }}>
      <summary>Show the steps</summary>
      {children}
    </Box>
  );
}
