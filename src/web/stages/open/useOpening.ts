import { useMemo } from 'react';
import type { MeasuredBack } from '../../../core/craft/cases';
import { type Opening, openingOf } from '../../../core/advice/opening';
import { useJob } from '../../job/JobContext';

/** What the form of measures tells while it is typed. */
export interface TypedBack {
  readonly back: MeasuredBack;
  readonly kindChosen: boolean;
}

/** Half-typed figures reach the text as null: they are none yet. */
function readTyped(text: string | undefined): TypedBack | null {
  if (!text) return null;
  const { back, kindChosen } = JSON.parse(text) as TypedBack;
  const figures = (list: readonly (number | null)[]): number[] =>
    list.filter((each): each is number => each !== null);
  return {
    back: {
      ...back,
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
