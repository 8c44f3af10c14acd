import type { CellRow } from '../../core/craft/cells';
import { choice, type Fields, figure, freeMono, mm } from '../describe';

const name = (label: string, example: string) => freeMono(label, { max: 20, example });
const capacity = (label: string, example: number) =>
  figure(label, { min: 0, max: 5000, example, unit: 'mAh' });

export const cellFields: Fields<CellRow> = {
  chemistry: choice('Chemistry', ['silver-oxide', 'lithium'], 'silver-oxide'),
  iec: name('IEC name', 'SR60'),
  diameterMm: mm('Diameter', 50, 6.8),
  heightMm: mm('Height', 20, 2.1),
  tradeLow: name('Trade name, low drain', 'SR621SW'),
  tradeHigh: name('Trade name, high drain', 'SR621W'),
  numberLow: name('Number, low drain', '364'),
  numberHigh: name('Number, high drain', ''),
  alkaline: name('Alkaline twin', 'LR621'),
  card: name('Name on the card', 'AG1'),
  capacityMinMAh: capacity('Least capacity', 18),
  capacityMaxMAh: capacity('Most capacity', 23),
};
