import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useState } from 'react';
import type { Entry } from '../../core/logbook';

/** A recorded fact as one line of its stage. */
export interface RecordedLine {
  readonly entry: Entry;
  /** What its form is called. */
  readonly title: string;
  readonly words: string;
}

/** A fact that is not asked of every job, and the way to its form. */
export interface OfferedFact {
  readonly title: string;
  readonly open: () => void;
}

type Enter<T> = (one: T) => () => void;

interface Stage {
  readonly lines: readonly RecordedLine[];
  readonly offered: readonly OfferedFact[];
  /** The entry whose form stands open for a correction. */
  readonly correctingId: string | null;
}

interface Doors {
  readonly standAsLine: Enter<RecordedLine>;
  readonly offer: Enter<OfferedFact>;
  readonly correct: (entryId: string | null) => void;
}

const StageContext = createContext<Stage | null>(null);
const DoorsContext = createContext<Doors | null>(null);

function useList<T>(): readonly [readonly T[], Enter<T>] {
  const [list, setList] = useState<readonly T[]>([]);
  const enter = useCallback((one: T) => {
    setList((before) => [...before, one]);
    return () => setList((before) => before.filter((each) => each !== one));
  }, []);
  return [list, enter];
}

/** What stands in a stage and what else may be recorded in it, told by the cards of its facts wherever they are drawn. */
export function RecordedLinesProvider({ children }: { readonly children: ReactNode }) {
  const [lines, standAsLine] = useList<RecordedLine>();
  const [offered, offer] = useList<OfferedFact>();
  const [correctingId, correct] = useState<string | null>(null);
  const stage = useMemo(() => ({ lines, offered, correctingId }), [lines, offered, correctingId]);
  const doors = useMemo(() => ({ standAsLine, offer, correct }), [standAsLine, offer]);
  return (
    <DoorsContext value={doors}>
      <StageContext value={stage}>{children}</StageContext>
    </DoorsContext>
  );
}

export function useRecordedLines(): Stage {
  const stage = useContext(StageContext);
  if (!stage) throw new Error('No stage stands here.');
  return stage;
}

export function useDoors(): Doors {
  const doors = useContext(DoorsContext);
  if (!doors) throw new Error('No stage stands here.');
  return doors;
}

/** Lets a fact stand as a line while it is recorded; null while its form is drawn instead. */
export function useStandsAsLine(entry: Entry | null, title: string, words: string): void {
  const { standAsLine } = useDoors();
  useEffect(
    () => (entry === null ? undefined : standAsLine({ entry, title, words })),
    [entry, title, words, standAsLine],
  );
}
