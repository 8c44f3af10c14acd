import type { Payloads } from '../core/logbook';

/** Laid under the charging lamp of the invented counter, flat, as it was measured there. */
export const flatUnderLamp: Payloads['cell.lit'] = {
  placeId: 'lamp',
  placeName: 'charging lamp',
  distanceMm: null,
  roomC: 21,
  shows: 'flat',
  percent: null,
};
