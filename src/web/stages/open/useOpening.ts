import { useMemo } from 'react';
import { type Opening, openingOf, type TypedBack } from '../../../core/advice/opening';
import type { Drafts } from '../../job/drafts';
import { useJob } from '../../job/JobContext';

/** What the form of measures tells while it is typed. */
export interface TypedHere {
  readonly back: TypedBack;
  readonly kindChosen: boolean;
}

/** A half-typed figure is none yet: a measure not known, a clock position not told. */
function readTyped(draft: Drafts['back']): TypedHere | null {
  if (draft === null) return null;
  const { back, kindChosen } = draft;
  const known = Object.fromEntries(
    Object.entries(back).map(([name, value]) => [name, Number.isNaN(value) ? null : value]),
  ) as typeof back;
  const figures = (list: readonly (number | null)[]): number[] =>
    list.filter((each): each is number => each !== null && !Number.isNaN(each));
  return {
    back: {
      ...known,
      notchClocks: figures(back.notchClocks),
      pusherClocks: figures(back.pusherClocks),
    },
    kindChosen,
  };
}

/** How this watch is opened, with what is typed just now. */
export function useOpening(): Opening {
  const { state, draft, book, context, earlier } = useJob();
  return useMemo(
    () =>
      openingOf({
        state,
        history: earlier?.history ?? null,
        tools: book,
        schools: context.policy.schools,
        typed: readTyped(draft.back),
      }),
    [state, draft.back, book, context.policy.schools, earlier],
  );
}
