import {
  createContext,
  type ReactNode,
  useCallback,
  useContext,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import { kindDefinition } from '../../../contract';
import { evidenceOfJob, type JobEvidence, movementHidden } from '../../../core/advice/identify';
import { type Look, LOOK_NAMES, LOOKS, type Seen, type SeenBefore } from '../../../core/craft/identify';
import { readSize } from '../../../core/craft/units';
import { useSeenBefore } from '../../api/resources';
import { useJob } from '../../job/JobContext';
import type { Answer } from '../../workers/identify.worker';
import { identify } from './identifier';
const EVIDENCE = kindDefinition('identify.evidence').schema;
const NOTHING_SEEN: readonly SeenBefore[] = [];

/** What is recorded, apart from what is typed: fields that show the one need not follow every key of the other. */
interface Recorded {
  readonly evidence: readonly JobEvidence[];
  /** What is typed for a look and not recorded; empty takes it back. */
  /** What is typed for a look; null once it is given or taken back. */
  readonly setTyped: (look: Look, text: string | null) => void;
  /** The look whose field on the mat a hand is in; null once it left. */
  readonly setHeld: (look: Look | null) => void;
}

interface Answered {
  /** What counts, with what is typed and not recorded yet. */
  readonly counting: readonly Seen[];
  /** Null while the worker has not answered yet. */
  readonly answer: Answer | null;
  /** The worker could not start. */
  readonly failed: boolean;
}

const RecordedContext = createContext<Recorded | null>(null);
const AnsweredContext = createContext<Answered | null>(null);
/** The look that is asked for in the lamp. */
const AskedLookContext = createContext<Look | null>(null);
const TypedContext = createContext<Readonly<Partial<Record<Look, string>>>>({});

export function useEvidence(): Recorded {
  const recorded = useContext(RecordedContext);
  if (!recorded) throw new Error('Nothing is identified here.');
  return recorded;
}

export function useAnswer(): Answered {
  const answered = useContext(AnsweredContext);
  if (!answered) throw new Error('Nothing is identified here.');
  return answered;
}

/** The look that settles most, or the one that is being answered; null once the movement is known or named. */
export function useAskedLook(): Look | null {
  return useContext(AskedLookContext);
}

/** What is typed for a look and not recorded yet, wherever its field stands; undefined where nothing is. */
export function useTypedText(look: Look): string | undefined {
  return useContext(TypedContext)[look];
}

/** What is typed for a look, as something seen; null where it says nothing yet. Whether it can be is not judged. */
export function typedSeen(look: Look, text: string): Seen | null {
  if (text.trim() === '') return null;
  if (LOOKS[look].as !== 'mm') return { look, value: text.trim(), withinMm: 0 };
  const size = readSize(text);
  return size && { look, value: size.mm, withinMm: size.withinMm };
}

/** Identifies the movement of the job at hand from what is recorded and what is being typed. */
export function IdentificationProvider({ children }: { readonly children: ReactNode }) {
  const { state, book } = useJob();
  const { data, error } = useSeenBefore();
  // With the server away, and nothing kept of what was seen before, the book alone decides.
  const before = data ?? (error === undefined ? undefined : NOTHING_SEEN);
  const [typed, setAllTyped] = useState<Readonly<Partial<Record<Look, string>>>>({});
  const askedNow = useRef<Look | null>(null);
  /** What was asked for when its answer began to be typed: typed it counts, and another look would be asked for. */
  const [answering, setAnswering] = useState<Look | null>(null);
  /** The look whose field on the mat has the focus. */
  const [held, setHeld] = useState<Look | null>(null);
  const setTyped = useCallback((look: Look, text: string | null) => {
    setAllTyped((all) => {
      if (all[look] === (text ?? undefined)) return all;
      const { [look]: _, ...others } = all;
      return text === null ? others : { ...others, [look]: text };
    });
    if (askedNow.current === look) setAnswering((text ?? '') === '' ? null : look);
  }, []);
  const evidence = useMemo(() => evidenceOfJob(state, book), [state, book]);
  const counting = useMemo(
    () =>
      LOOK_NAMES.flatMap((look): Seen[] => {
        const text = typed[look];
        const given = text === undefined ? null : typedSeen(look, text);
        const seen =
          (given && EVIDENCE.safeParse(given).success ? given : null) ??
          evidence.find((each) => each.look === look)?.seen ??
          null;
        return seen === null ? [] : [seen];
      }),
    [typed, evidence],
  );
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [failed, setFailed] = useState(false);
  const hidden = movementHidden(state);
  useEffect(() => {
    if (before === undefined) return undefined;
    let current = true;
    const unseen = evidence.filter(({ seen }) => seen === null);
    const taken = [...counting, ...unseen].map(({ look }) => look);
    void identify(book, before, counting, taken, hidden)
      .then((given) => {
        if (!current || given === null) return;
        setAnswer(given);
        setFailed(false);
      })
      .catch(() => {
        if (current) setFailed(true);
      });
    return () => {
      current = false;
    };
  }, [counting, evidence, book, before, hidden]);
  const recorded = useMemo(() => ({ evidence, setTyped, setHeld }), [evidence, setTyped]);
  const answered = useMemo(() => ({ counting, answer, failed }), [counting, answer, failed]);
  const settled = state.facts.movement !== null || answer?.identification.verdict === 'known';
  const best = answer?.next.best?.look ?? null;
  // A field that a hand is in stays where it is: moved into the lamp under it, the keys would go nowhere.
  const isTyped = best !== null && ((typed[best] ?? '') !== '' || held === best);
  const asked = answering ?? (settled || isTyped ? null : best);
  // In the commit that draws it: a key may come before the page has time for more.
  useLayoutEffect(() => {
    askedNow.current = asked;
  }, [asked]);
  return (
    <RecordedContext value={recorded}>
      <AskedLookContext value={asked}>
        <TypedContext value={typed}>
          <AnsweredContext value={answered}>{children}</AnsweredContext>
        </TypedContext>
      </AskedLookContext>
    </RecordedContext>
  );
}
