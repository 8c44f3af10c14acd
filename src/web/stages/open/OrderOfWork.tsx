import { Button, Paper, Stack, Typography } from '@mui/material';
import type { PlanStep } from '../../../core/craft/opening';
import { partsComingOff } from '../../../core/advice/opening';
import { countOf } from '../../../core/craft/parts';
import { localTime } from '../../../core/craft/time';
import { useKey } from '../../kit/keys/KeysProvider';
import { useJob } from '../../job/JobContext';
import { FoldedSteps, StepList } from '../../job/StepList';
import { useOpening } from './useOpening';

/** The steps that open this very watch, ticked one by one or all at once; what comes off goes on the tray. */
export function OrderOfWork() {
  const { state, record, technician, context } = useJob();
  const { facts } = state;
  const opening = useOpening();
  const { plan } = opening;
  const left = plan.steps.filter(({ id }) => !facts.stepsDone.has(id));

  const done = async (steps: readonly PlanStep[]): Promise<void> => {
    if (steps.length === 0) return;
    await record('open.steps', { steps: steps.map(({ id }) => id), asShown: steps.length > 1 });
    for (const part of partsComingOff(steps, facts)) await record('open.part', part);
  };
  // As shown says what was done, not how it went: that stays to be seen and recorded.
  const asShown = async (): Promise<void> => {
    if (plan.stops) return;
    await done(left);
  };
  useKey('a', 'All steps done as shown', () => void asShown());

  return (
    <Paper component="section" aria-label="Order of work" sx={{ p: 2 }}>
      <Stack direction="row" sx={{ alignItems: 'baseline', justifyContent: 'space-between', mb: 0.5 }}>
        <Typography variant="h3" component="h2">
          Order of work
        </Typography>
        <Typography color="text.secondary">
          {plan.steps.length - left.length} of {plan.steps.length} done
        </Typography>
      </Stack>
      <FoldedSteps folded={facts.back !== null}>
        <StepList
          steps={plan.steps.map((step) => {
            const ticked = facts.stepsDone.get(step.id);
            return {
              ...step,
              danger: step.caution,
              done: ticked !== undefined,
              when: ticked && localTime(ticked.occurredAt, context.shop.zone, 'HH:mm'),
              note: toTheTray(step),
            };
          })}
          onDone={(id) => void done(plan.steps.filter((step) => step.id === id))}
        />
      </FoldedSteps>
      {left.length > 0 && !plan.stops && (
        <Button
          variant="outlined"
          sx={{ mt: 1 }}
          disabled={technician === null}
          onClick={() => void asShown()}
        >
          All done as shown (a)
        </Button>
      )}
    </Paper>
  );
}

function toTheTray({ off }: PlanStep): string | null {
  if (off.length === 0) return null;
  const parts = off.map(
    ({ part, count, position }) => `${countOf(part, count)}${position && ` (${position})`}`,
  );
  return `To the tray: ${parts.join('; ')}`;
}
