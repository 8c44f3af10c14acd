import { createContext, type ReactNode, useContext, useMemo, useState } from 'react';
import { WEEKDAYS } from '../../../core/craft/policy';
import {
  planSetting,
  type QuickSet,
  readShown,
  type SettingPlan,
  type TypedShown,
} from '../../../core/craft/setting';
import { localDay, localTime } from '../../../core/craft/time';
import { useJob } from '../../job/JobContext';

/** What is typed of the watch before it is set. */
export interface TypedSetting extends TypedShown {
  readonly quickSet: QuickSet | null;
  readonly wantedLanguage: 0 | 1 | null;
}

interface Planner {
  readonly plan: SettingPlan | null;
  /** For which time it was worked out, in words. */
  readonly wanted: string;
  readonly setTyped: (typed: TypedSetting | null) => void;
}

const Context = createContext<Planner | null>(null);

/** How this watch is set from what it shows; null until that is typed. */
export function usePlanner(): Planner {
  const planner = useContext(Context);
  if (!planner) throw new Error('This stands outside the stage that sets.');
  return planner;
}

export function PlannerProvider({ children }: { readonly children: ReactNode }) {
  const { context } = useJob();
  const [typed, setTyped] = useState<TypedSetting | null>(null);
  const { nowUtc } = context;
  const { zone } = context.shop;
  const planner = useMemo(() => {
    const shown = typed === null ? null : readShown(typed);
    const clock = localTime(nowUtc, zone, 'HH:mm');
    const [hours = 0, minutes = 0] = clock.split(':').map(Number);
    const day = localDay(nowUtc, zone);
    const weekday = (WEEKDAYS as readonly string[]).indexOf(localTime(nowUtc, zone, 'dddd'));
    return {
      wanted: `${WEEKDAYS[weekday] ?? ''} ${Number(day.slice(8))}, ${clock}`,
      plan:
        shown === null || typed === null || typed.quickSet === null
          ? null
          : planSetting(
              shown,
              {
                minutes: hours * 60 + minutes,
                weekday,
                date: Number(day.slice(8)),
                language: typed.wantedLanguage,
              },
              { quickSet: typed.quickSet, changeOver: null },
            ),
      setTyped,
    };
  }, [typed, nowUtc, zone]);
  return <Context value={planner}>{children}</Context>;
}
