import { Button, Paper, Stack, Typography } from '@mui/material';
import { type ReactNode, useState } from 'react';

export interface MoreFact {
  readonly title: string;
  /** Recorded already, or asked for by the service: then it stands open. */
  readonly shown: boolean;
  readonly card: ReactNode;
}

/** Facts that are not asked of every job: each a button, until it is opened or recorded. */
export function MoreFacts({
  facts,
  label = 'Also to record',
}: {
  readonly facts: readonly MoreFact[];
  readonly label?: string;
}) {
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const open = (fact: MoreFact): boolean => fact.shown || opened.has(fact.title);
  const folded = facts.filter((fact) => !open(fact));
  return (
    <>
      {facts.filter(open).map((fact) => (
        <Stack key={fact.title} spacing={2}>
          {fact.card}
        </Stack>
      ))}
      {folded.length > 0 && (
        <Paper component="section" aria-label={label} sx={{ px: 2, py: 1 }}>
          <Typography color="text.secondary">Also to record, where it applies:</Typography>
          <Stack direction="row" sx={{ flexWrap: 'wrap', columnGap: 1, rowGap: 1, mt: 0.5 }}>
            {folded.map(({ title }) => (
              <Button key={title} variant="outlined" onClick={() => setOpened(new Set([...opened, title]))}>
                {title}
              </Button>
            ))}
          </Stack>
        </Paper>
      )}
    </>
  );
}
