import { MAIN_WELL, type WellState } from '../../../core/logbook';

/** How a card of one of several wells begins; empty where there is one. */
export function wellTitle(well: WellState): string {
  return well.name === MAIN_WELL ? '' : `${well.name}: `;
}
