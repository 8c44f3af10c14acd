import { useMemo } from 'react';
import { fitForWell } from '../../../core/advice/cell';
import type { WellState } from '../../../core/logbook';
import type { LotOffer, WhatToFit } from '../../../core/craft/stock';
import { useJob } from '../../job/JobContext';

/** Whether the owner gave their word for an alkaline in this well, told at the bench and kept with the fitting. */
export function useAlkalineWord(well: WellState): readonly [boolean, (agreed: boolean) => void] {
  const { draft, setWellDraft } = useJob();
  return [
    draft.wells[well.name]?.alkalineAgreed === true,
    (alkalineAgreed) => setWellDraft(well.name, { alkalineAgreed }),
  ];
}

/** The lot about to be taken for a well: the one picked, else the best. */
export function useChosenLot(
  well: WellState,
  fit: WhatToFit | null,
): readonly [LotOffer | null, (lotId: string) => void] {
  const { draft, setWellDraft } = useJob();
  const wanted = draft.wells[well.name]?.lotId;
  const picked = fit?.offers.find(({ verdict, lot }) => verdict === 'take' && lot.id === wanted);
  return [picked ?? fit?.best ?? null, (lotId) => setWellDraft(well.name, { lotId })];
}

/** Where an order of it is written, filled in so far. */
export function orderAt({
  code,
  supplier,
}: Pick<NonNullable<WhatToFit['order']>, 'code' | 'supplier'>): string {
  return `/stock/orders?${new URLSearchParams({ cell: code, supplier: supplier ?? '' }).toString()}`;
}

/** What to fit in a well, from the stock as it is; null where nobody knows what it takes. */
export function useFit(well: WellState): WhatToFit | null {
  const { state, lots, suppliers, book, context, today } = useJob();
  const [alkalineAgreed] = useAlkalineWord(well);
  return useMemo(
    () =>
      fitForWell(state, well, {
        lots,
        records: suppliers,
        book,
        policy: context.policy,
        day: today,
        alkalineAgreed,
      }),
    [state, well, lots, suppliers, book, context.policy, today, alkalineAgreed],
  );
}
