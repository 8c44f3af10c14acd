import { Button, Paper, Stack, Typography } from '@mui/material';
import { type ReactNode, useEffect, useRef, useState } from 'react';

export interface OptionalFact {
  readonly title: string;
  /** Recorded already, or asked for by the service: then it stands open. */
  readonly shown: boolean;
  readonly card: ReactNode;
}

interface Props {
  readonly facts: readonly OptionalFact[];
  readonly label?: string;
}

/** Facts that are not asked of every job: each a button, until it is opened or recorded. */
export function OptionalFacts({ facts, label = 'Also to record' }: Props) {
  const [opened, setOpened] = useState<readonly string[]>([]);
  const open = (fact: OptionalFact): boolean => fact.shown || opened.includes(fact.title);
  const folded = facts.filter((fact) => !open(fact));
  return (
    <>
      {facts.filter(open).map((fact) => (
        <Opened key={fact.title} byHand={opened.at(-1) === fact.title}>
          {fact.card}
        </Opened>
      ))}
      {folded.length > 0 && (
        <Paper component="section" aria-label={label} sx={{ px: 2, py: 1 }}>
          <Typography color="text.secondary">Also to record, where it applies:</Typography>
          <Stack direction="row" sx={{ flexWrap: 'wrap', columnGap: 1, rowGap: 1, mt: 0.5 }}>
            {folded.map(({ title }) => (
              <Button key={title} variant="outlined" onClick={() => setOpened([...opened, title])}>
                {title}
              </Button>
            ))}
          </Stack>
        </Paper>
      )}
    </>
  );
}

/** A card that was just opened takes the focus, since the button that opened it is gone. */
function Opened({ byHand, children }: { readonly byHand: boolean; readonly children: ReactNode }) {
  const card = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (byHand) card.current?.querySelector<HTMLElement>('input, select, textarea')?.focus();
  }, [byHand]);
  return (
    <Stack ref={card} spacing={2}>
      {children}
    </Stack>
  );
}
