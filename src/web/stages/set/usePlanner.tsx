import { createContext, type ReactNode, useContext, useMemo, useState } from 'react';
import { movementToSet } from '../../../core/advice/proving';
import { WEEKDAYS } from '../../../core/craft/policy';
import {
  planSetting,
  type QuickSet,
  readShown,
  settingAdvice,
  type SettingAdvice,
  type SettingPlan,
  type TypedShown,
} from '../../../core/craft/setting';
import { localDay, localTime, minutesOfClock } from '../../../core/craft/time';
import { useJob } from '../../job/JobContext';

/** What is typed of the watch before it is set. */
export interface TypedSetting extends TypedShown {
  readonly quickSet: QuickSet | null;
  readonly wantedLanguage: 0 | 1 | null;
}

interface Planner {
  /** Null until what it shows is typed. */
  readonly plan: SettingPlan | null;
  readonly advice: SettingAdvice;
  /** For which time it was worked out, in words. */
  readonly wanted: string;
  readonly setTyped: (typed: TypedSetting | null) => void;
  /** The full minute the crown goes home at; null while nobody counts. */
  readonly crownAtUtc: string | null;
  readonly setCrownAt: (atUtc: string | null) => void;
}

const Context = createContext<Planner | null>(null);

/** How this watch is set from what it shows. */
export function usePlanner(): Planner {
  const planner = useContext(Context);
  if (!planner) throw new Error('This stands outside the stage that sets.');
  return planner;
}

export function PlannerProvider({ children }: { readonly children: ReactNode }) {
  const { context, state, book } = useJob();
  const [typed, setTyped] = useState<TypedSetting | null>(null);
  const [crownAtUtc, setCrownAt] = useState<string | null>(null);
  const { zone } = context.shop;
  const atUtc = crownAtUtc ?? context.nowUtc;
  const movement = useMemo(() => movementToSet(state, book), [state, book]);
  const planner = useMemo(() => {
    const shown = typed === null ? null : readShown(typed, movement?.functions.includes('day') ?? false);
    const clock = localTime(atUtc, zone, 'HH:mm');
    const day = localDay(atUtc, zone);
    const minutes = minutesOfClock(clock);
    const weekday = (WEEKDAYS as readonly string[]).indexOf(localTime(atUtc, zone, 'dddd'));
    const date = Number(day.slice(8));
    const plan =
      shown === null || typed === null || typed.quickSet === null
        ? null
        : planSetting(
            shown,
            { minutes, weekday, date, language: typed.wantedLanguage },
            { quickSet: typed.quickSet, changeOver: movement?.changeOver ?? null },
          );
    // What was typed of the watch counts before the book: a day that has no quick-set there is corrected otherwise.
    const seen =
      movement && typed?.quickSet ? { ...movement, dateQuickSet: typed.quickSet !== 'none' } : movement;
    return {
      wanted: `${WEEKDAYS[weekday] ?? ''} ${date}, ${clock}`,
      plan,
      advice: settingAdvice(seen, day, { plan, wantedMinutes: minutes }),
      setTyped,
      crownAtUtc,
      setCrownAt,
    };
  }, [typed, atUtc, zone, movement, crownAtUtc]);
  return <Context value={planner}>{children}</Context>;
}
