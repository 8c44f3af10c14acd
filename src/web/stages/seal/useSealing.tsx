import { createContext, type ReactNode, useContext, useMemo } from 'react';
import {
  assortmentOf,
  chooseRing,
  closingOf,
  diesOf,
  fittedRing,
  gasketAdvice,
  pressMeasuresOf,
  oldRingCanBe,
  type RingChoice,
  type RingToHave,
  staysClosedYears,
  wornOf,
} from '../../../core/advice/seal';
import { openingOf } from '../../../core/advice/opening';
import {
  type ClosingStep,
  type FitOfDies,
  type PressMeasures,
  USUAL_SCREWS,
} from '../../../core/craft/closing';
import {
  type FitOfRing,
  grooveContradictions,
  type LikeliestRings,
  type RingAdvice,
} from '../../../core/craft/gaskets';
import { type Payloads, activeRing } from '../../../core/logbook';
import type { BackKind } from '../../../core/craft/cases';
import type { Drafts } from '../../job/drafts';
import { useJob } from '../../job/JobContext';

export interface Sealing {
  readonly kind: BackKind;
  /** Whether anybody said what kind of back it is. */
  readonly kindKnown: boolean;
  /** Of a plate. */
  readonly screwCount: number;
  readonly advice: RingAdvice;
  /** For the groove as typed or recorded; null while there is none. */
  readonly ring: RingChoice | null;
  /** Which rings the old one can have been, from the caliper alone; null while nothing of it is measured. */
  readonly oldCanBe: LikeliestRings<RingToHave> | null;
  readonly fitted: FitOfRing | null;
  readonly measures: PressMeasures;
  readonly dies: FitOfDies | null;
  readonly steps: readonly ClosingStep[];
}

/** A groove whose every measure is typed, and none against another. */
function typedGroove(typed: Drafts['groove']): Payloads['seal.groove'] | null {
  if (typed === null) return null;
  const { innerMm, outerMm, depthMm, stepMm, seat, depthWithinMm, sectionWithinMm } = typed;
  const figures = [innerMm, outerMm, depthMm, stepMm, depthWithinMm, sectionWithinMm];
  if (seat === null || !figures.every((each) => typeof each === 'number' && Number.isFinite(each)))
    return null;
  const groove = { ...typed, seat } as Payloads['seal.groove'];
  return grooveContradictions(groove).length === 0 ? groove : null;
}

const NOTHING_SAID = { findings: [], ageYears: null, meetsWater: null } as const;

const Context = createContext<Sealing | null>(null);

/** What the core says of sealing and closing the watch of this stage. */
export function useSealing(): Sealing {
  const sealing = useContext(Context);
  if (!sealing) throw new Error('This stands outside the stage that seals.');
  return sealing;
}

/** Works it out once for the whole stage, with what is typed just now. */
export function SealingProvider({ children }: { readonly children: ReactNode }) {
  return <Context value={useWorkedOut()}>{children}</Context>;
}

function useWorkedOut(): Sealing {
  const { state, draft, book, lots, context, earlier, today } = useJob();
  const closedYears = useMemo(() => staysClosedYears(state, lots, context), [state, lots, context]);
  const rings = useMemo(() => assortmentOf(book, lots, today), [book, lots, today]);
  const opening = useMemo(
    () =>
      openingOf({
        state,
        history: earlier?.history ?? null,
        tools: book,
        schools: context.policy.schools,
        typed: null,
      }),
    [state, earlier, book, context.policy.schools],
  );
  return useMemo(() => {
    const { facts } = state;
    const said = activeRing(facts)?.payload ?? draft.gasket ?? NOTHING_SAID;
    const age = said.ageYears;
    const groove = typedGroove(draft.groove) ?? facts.groove?.payload ?? null;
    const dies = diesOf(state, book, opening);
    return {
      kind: opening.back.kind,
      kindKnown: opening.kindKnown,
      screwCount: opening.back.screwCount ?? USUAL_SCREWS,
      advice: gasketAdvice(
        state,
        { ...said, ageYears: age !== null && Number.isFinite(age) ? age : null },
        closedYears,
        context,
      ),
      ring: groove === null ? null : chooseRing(groove, rings, wornOf(state, book)),
      oldCanBe: oldRingCanBe(state, rings),
      fitted: fittedRing(state),
      measures: pressMeasuresOf(state),
      dies,
      steps: closingOf(state, opening, dies, context),
    };
  }, [state, draft.gasket, draft.groove, closedYears, context, rings, book, opening]);
}
