import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from 'react';
import {
  evidenceOfJob,
  type JobEvidence,
  LOOK_NAMES,
  type Look,
  LOOKS,
  movementHidden,
  type Seen,
  type SeenBefore,
} from '../../../core/identify';
import { type EngravingReading, readEngraving } from '../../../core/movements';
import { readSize } from '../../../core/units';
import { useSeenBefore } from '../../api/resources';
import { useJob } from '../../job/JobContext';
import type { Answer } from '../../workers/identify.worker';
import { identifierFor } from './identifier';

const NOTHING_SEEN: readonly SeenBefore[] = [];

interface Identifying {
  readonly evidence: readonly JobEvidence[];
  /** What counts, with what is typed and not recorded yet. */
  readonly counting: readonly Seen[];
  /** What the engraving holds beside the movement; null where nothing was read. */
  readonly engraved: EngravingReading | null;
  /** Null while the worker has not answered yet. */
  readonly answer: Answer | null;
}

const Context = createContext<Identifying | null>(null);

export function useIdentification(): Identifying {
  const identifying = useContext(Context);
  if (!identifying) throw new Error('Nothing is identified here.');
  return identifying;
}

/** The draft under which a look that is typed is kept. */
export const draftOf = (look: Look): string => `look.${look}`;

/** What is typed for a look, as something seen; null where it says nothing yet. */
export function typedSeen(look: Look, text: string): Seen | null {
  if (text.trim() === '') return null;
  if (LOOKS[look].as !== 'mm') return { look, value: text.trim(), withinMm: 0 };
  const size = readSize(text);
  return size && { look, value: size.mm, withinMm: size.withinMm };
}

/** Identifies the movement of the job at hand from what is recorded and what is being typed. */
export function IdentificationProvider({ children }: { readonly children: ReactNode }) {
  const { state, book, draft } = useJob();
  const { data, error } = useSeenBefore();
  // With the server away, and nothing kept of what was seen before, the book alone decides.
  const before = data ?? (error === undefined ? undefined : NOTHING_SEEN);
  const evidence = useMemo(() => evidenceOfJob(state, book), [state, book]);
  const counting = useMemo(
    () =>
      LOOK_NAMES.flatMap((look): Seen[] => {
        const typed = draft[draftOf(look)];
        const seen =
          (typed === undefined ? null : typedSeen(look, typed)) ??
          evidence.find((each) => each.look === look)?.seen ??
          null;
        return seen === null ? [] : [seen];
      }),
    [draft, evidence],
  );
  const text = counting.find(({ look }) => look === 'engraving')?.value ?? null;
  const engraved = useMemo(() => (typeof text === 'string' ? readEngraving(text, book) : null), [text, book]);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const hidden = movementHidden(state);
  useEffect(() => {
    if (before === undefined) return undefined;
    let current = true;
    const taken = counting.map(({ look }) => look);
    void identifierFor(book, before)
      .then((worker) => worker.identify(counting, taken, hidden))
      .then((given) => {
        if (current && given !== null) setAnswer(given);
      });
    return () => {
      current = false;
    };
  }, [counting, book, before, hidden]);
  const value = useMemo(
    () => ({ evidence, counting, engraved, answer }),
    [evidence, counting, engraved, answer],
  );
  return <Context value={value}>{children}</Context>;
}
