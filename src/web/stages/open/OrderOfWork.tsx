import { Box, Button, Checkbox, Paper, Stack, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { opens, type PlanStep } from '../../../core/backs';
import { asAdvised, partsComingOff } from '../../../core/opening';
import { countOf } from '../../../core/parts';
import { localTime } from '../../../core/time';
import { Caution } from '../../app/Lamp';
import { useKey } from '../../app/keys/KeysProvider';
import { colours } from '../../app/theme';
import { useJob } from '../../job/JobContext';
import { useOpening } from './useOpening';

/** The steps that open this very watch, ticked one by one or all at once; what comes off goes on the tray. */
export function OrderOfWork() {
  const { state, record, technician, context } = useJob();
  const { facts } = state;
  const opening = useOpening();
  const { plan, opener } = opening;
  const { protection } = context.policy.schools;
  const left = plan.steps.filter(({ id }) => !facts.stepsDone.has(id));

  const done = async (steps: readonly PlanStep[]): Promise<void> => {
    if (steps.length === 0) return;
    await record('open.steps', { steps: steps.map(({ id }) => id), asShown: steps.length > 1 });
    for (const part of partsComingOff(steps, facts)) await record('open.part', part);
  };
  // As shown means with the tool shown, too: then the opening itself is on record with one key.
  const asShown = async (): Promise<void> => {
    if (plan.stops || facts.back !== null) return;
    await done(left);
    if (opens(opener)) await record('open.back', { ...asAdvised(opening), protection, went: 'freely' });
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
      <Fold folded={facts.back !== null}>
        <Stack component="ol" spacing={0.5} sx={{ listStyle: 'none', p: 0, m: 0 }}>
          {plan.steps.map((step, index) => {
            const ticked = facts.stepsDone.get(step.id);
            return (
              <Stack
                component="li"
                key={step.id}
                direction="row"
                spacing={0.5}
                sx={{ borderTop: `1px solid ${colours.thread}`, pt: 0.5, alignItems: 'flex-start' }}
              >
                <Checkbox
                  checked={ticked !== undefined}
                  disabled={technician === null || ticked !== undefined}
                  onChange={() => void done([step])}
                  slotProps={{ input: { 'aria-label': `${step.what}: done` } }}
                  sx={{ mt: -0.5 }}
                />
                <Box sx={{ flexGrow: 1, minWidth: 0 }}>
                  <Typography sx={{ fontWeight: 700 }}>
                    {index + 1}. {step.what}
                    {ticked && (
                      <Typography component="span" variant="body2" color="text.secondary" sx={{ ml: 1 }}>
                        {localTime(ticked.occurredAt, context.shop.zone, 'HH:mm')}
                      </Typography>
                    )}
                  </Typography>
                  {!ticked && <Typography>{step.how}</Typography>}
                  {!ticked && step.caution && (
                    <Box sx={{ my: 0.5 }}>
                      <Caution>{step.caution}</Caution>
                    </Box>
                  )}
                  {!ticked && step.off.length > 0 && (
                    <Typography variant="body2" color="text.secondary">
                      To the tray:{' '}
                      {step.off
                        .map(
                          ({ part, count, position }) =>
                            `${countOf(part, count)}${position && ` (${position})`}`,
                        )
                        .join('; ')}
                    </Typography>
                  )}
                </Box>
              </Stack>
            );
          })}
        </Stack>
      </Fold>
      {left.length > 0 && facts.back === null && !plan.stops && (
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

/** Once the watch is open the order is only looked up. */
function Fold({ folded, children }: { readonly folded: boolean; readonly children: ReactNode }) {
  if (!folded) return children;
  return (
    <Box
      component="details"
      sx={{ '& summary': { cursor: 'pointer', minHeight: 36, color: colours.ink, fontWeight: 700 } }}
    >
      <summary>Show the steps</summary>
      {children}
    </Box>
  );
}
