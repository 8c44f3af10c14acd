import { Stack } from '@mui/material';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { useDoors } from './recordedLines';

export interface OptionalFact {
  readonly title: string;
  /** Recorded already, or asked for by the service: then it stands open. */
  readonly shown: boolean;
  readonly card: ReactNode;
}

/** Facts that are not asked of every job: offered by name, until one is opened or recorded. */
export function OptionalFacts({ facts }: { readonly facts: readonly OptionalFact[] }) {
  const [opened, setOpened] = useState<readonly string[]>([]);
  const open = (fact: OptionalFact): boolean => fact.shown || opened.includes(fact.title);
  return facts.map((fact) =>
    open(fact) ? (
      <Opened key={fact.title} byHand={opened.at(-1) === fact.title}>
        {fact.card}
      </Opened>
    ) : (
      <Offered
        key={fact.title}
        title={fact.title}
        onOpen={(title) => setOpened((before) => [...before, title])}
      />
    ),
  );
}

function Offered({ title, onOpen }: { readonly title: string; readonly onOpen: (title: string) => void }) {
  const { offer } = useDoors();
  const latest = useRef(onOpen);
  useEffect(() => {
    latest.current = onOpen;
  });
  useEffect(() => offer({ title, open: () => latest.current(title) }), [title, offer]);
  return null;
}

/** A card that was just opened takes the focus. */
function Opened({ byHand, children }: { readonly byHand: boolean; readonly children: ReactNode }) {
  const card = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (byHand) card.current?.querySelector<HTMLElement>('input, select, textarea')?.focus();
  }, [byHand]);
  return (
    <Stack ref={card} spacing={1.5} sx={{ '&:empty': { display: 'none' } }}>
      {children}
    </Stack>
  );
}
