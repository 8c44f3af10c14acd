import { Box, Checkbox, Stack, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { Fold } from '../kit/Fold';
import { Caution } from '../kit/Lamp';
import { colours } from '../kit/theme';
import { useJob } from './JobContext';

/** One step of the work as it is ticked at the bench. */
export interface ShownStep {
  readonly id: string;
  readonly what: string;
  readonly how: string;
  readonly danger: string | null;
  readonly done: boolean;
  /** Something else comes first: it cannot be ticked yet. */
  readonly waits?: boolean;
  /** Small, beside what was done: when. */
  readonly when?: string;
  /** Small, under what is to be done. */
  readonly note?: string | null;
}

interface Props {
  readonly steps: readonly ShownStep[];
  readonly onDone: (id: string) => void;
  /** The number of the first step. */
  readonly from?: number;
}

/** Steps in their order, each with its danger, ticked one by one; what is done keeps its name alone. */
export function StepList({ steps, onDone, from = 1 }: Props) {
  const { technician } = useJob();
  return (
    <Stack component="ol" start={from} spacing={0.5} sx={{ listStyle: 'none', p: 0, m: 0 }}>
      {steps.map(({ id, what, how, danger, done, waits = false, when, note }, index) => (
        <Stack
          component="li"
          key={id}
          direction="row"
          spacing={0.5}
          sx={{ borderTop: `1px solid ${colours.thread}`, pt: 0.5, alignItems: 'flex-start' }}
        >
          <Checkbox
            checked={done}
            disabled={technician === null || done || waits}
            onChange={() => onDone(id)}
            slotProps={{ input: { 'aria-label': `${what}: done` } }}
            sx={{ mt: -0.5 }}
          />
          <Box sx={{ flexGrow: 1, minWidth: 0 }}>
            <Typography sx={{ fontWeight: 700 }}>
              {from + index}. {what}
              {done && when && (
                <Typography component="span" variant="body2" color="text.secondary" sx={{ ml: 1 }}>
                  {when}
                </Typography>
              )}
            </Typography>
            {!done && <Typography>{how}</Typography>}
            {!done && danger && (
              <Box sx={{ my: 0.5 }}>
                <Caution>{danger}</Caution>
              </Box>
            )}
            {!done && note && (
              <Typography variant="body2" color="text.secondary">
                {note}
              </Typography>
            )}
          </Box>
        </Stack>
      ))}
    </Stack>
  );
}

/** Once the work is done its steps are only looked up. */
export function FoldedSteps({
  folded,
  children,
}: {
  readonly folded: boolean;
  readonly children: ReactNode;
}) {
  if (!folded) return children;
  return (
    <Fold summary="Show the steps" sx={{ color: colours.ink }}>
      {children}
    </Fold>
  );
}
