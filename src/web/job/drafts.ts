import { deepEqual } from 'fast-equals';
import { useCallback, useState } from 'react';
import type { TypedBack } from '../../core/advice/opening';
import type { Payloads } from '../../core/logbook';

/** A form's values while they are typed: figures of a list may be missing. */
type WhileTyped<T> = {
  readonly [F in keyof T]: T[F] extends readonly number[] ? readonly (number | null)[] : T[F];
};

/** What is typed or picked for one well. */
export interface WellDraft {
  /** The marking of the old cell; undefined: nobody typed. */
  readonly found?: string;
  /** The lot about to be taken. */
  readonly lotId?: string;
  /** The owner's word for an alkaline. */
  readonly alkalineAgreed?: boolean;
}

/** What is typed in a job and not yet recorded, for the lamp to think along. */
export interface Drafts {
  readonly back: { readonly back: WhileTyped<TypedBack>; readonly kindChosen: boolean } | null;
  readonly gasket: Pick<Payloads['seal.gasket'], 'findings' | 'ageYears' | 'meetsWater'> | null;
  /** The groove of the seam, a measure not typed yet null. */
  readonly groove:
    { readonly [F in keyof Payloads['seal.groove']]: Payloads['seal.groove'][F] | null } | null;
  readonly wells: Readonly<Record<string, WellDraft>>;
}

export interface DraftsOfJob {
  readonly draft: Drafts;
  readonly setDraft: <K extends 'back' | 'gasket' | 'groove'>(name: K, value: Drafts[K]) => void;
  readonly setWellDraft: (well: string, change: WellDraft) => void;
}

/** Drafts of one job; writing what stands there already changes nothing. */
export function useDrafts(): DraftsOfJob {
  const [draft, setDrafts] = useState<Drafts>({ back: null, gasket: null, groove: null, wells: {} });
  const put = useCallback(
    (change: (before: Drafts) => Drafts) =>
      setDrafts((before) => {
        const after = change(before);
        return deepEqual(before, after) ? before : after;
      }),
    [],
  );
  const setDraft = useCallback<DraftsOfJob['setDraft']>(
    (name, value) => put((before) => ({ ...before, [name]: value })),
    [put],
  );
  const setWellDraft = useCallback<DraftsOfJob['setWellDraft']>(
    (well, change) =>
      put((before) => ({
        ...before,
        wells: { ...before.wells, [well]: { ...before.wells[well], ...change } },
      })),
    [put],
  );
  return { draft, setDraft, setWellDraft };
}
