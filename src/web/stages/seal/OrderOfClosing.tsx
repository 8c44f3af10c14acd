import { Button, Paper, Stack, Typography } from '@mui/material';
import { isClosingStepDone } from '../../../core/advice/seal';
import type { ClosingStep } from '../../../core/craft/closing';
import { localTime } from '../../../core/craft/time';
import { openness } from '../../../core/logbook';
import { useKey } from '../../kit/keys/KeysProvider';
import { useJob } from '../../job/JobContext';
import { FoldedSteps, StepList } from '../../job/StepList';
import { useSealing } from './useSealing';

/** The steps that shut this very watch; what goes back is off the tray once its step is done. */
export function OrderOfClosing() {
  const { state, record, technician, context } = useJob();
  const { facts } = state;
  const { steps } = useSealing();
  const settledOf = (step: ClosingStep) => step.partIds.map((id) => facts.parts.get(id)?.settled ?? null);
  const ticked = (step: ClosingStep) => facts.closingDone.get(step.id);
  const isDone = (step: ClosingStep): boolean => isClosingStepDone(step, facts);
  const left = steps.filter((step) => !isDone(step) && step.waits === null);

  const done = async (some: readonly ClosingStep[]): Promise<void> => {
    const ofNoPart = some.filter(({ partIds }) => partIds.length === 0).map(({ id }) => id);
    if (ofNoPart.length > 0) await record('seal.steps', { steps: ofNoPart, asShown: ofNoPart.length > 1 });
    for (const { partIds, outcome } of some)
      for (const partEntryId of partIds)
        if (!facts.parts.get(partEntryId)?.settled)
          await record('open.part-settled', { partEntryId, outcome, note: '' });
  };
  const asShown = async (): Promise<void> => {
    if (openness(facts) !== 'open') return;
    await done(left);
  };
  useKey('a', 'All closing steps done as shown', () => void asShown());
  const doneCount = steps.filter(isDone).length;
  // What nobody opened is not closed.
  if (openness(facts) === 'never opened') return null;
  return (
    <Paper component="section" aria-label="Order of closing" sx={{ p: 2 }}>
      <Stack direction="row" sx={{ alignItems: 'baseline', justifyContent: 'space-between', mb: 0.5 }}>
        <Typography variant="h3" component="h2">
          Order of closing
        </Typography>
        <Typography color="text.secondary">
          {doneCount} of {steps.length} done
        </Typography>
      </Stack>
      <FoldedSteps folded={facts.closed !== null}>
        <StepList
          steps={steps.map((step) => {
            const entry = ticked(step) ?? settledOf(step).at(-1) ?? null;
            return {
              id: step.id,
              what: step.what,
              how: step.how,
              danger: step.caution,
              done: isDone(step),
              waits: step.waits !== null,
              note: step.waits && `Waits: ${step.waits}`,
              ...(entry ? { when: localTime(entry.occurredAt, context.shop.zone, 'HH:mm') } : {}),
            };
          })}
          onDone={(id) => void done(steps.filter((step) => step.id === id))}
        />
      </FoldedSteps>
      {left.length > 0 && facts.closed === null && (
        <Button
          variant="outlined"
          sx={{ mt: 1 }}
          disabled={technician === null}
          onClick={() => void asShown()}
        >
          {left.length === steps.length - doneCount
            ? 'All done as shown (a)'
            : 'All done as shown, except open steps (a)'}
        </Button>
      )}
    </Paper>
  );
}
