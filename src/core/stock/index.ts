export {
  checkDelivery,
  codesOnOrder,
  orderOfNote,
  type CheckedLine,
  type DeliveryLine,
  type LineVerdict,
  type OrderLine,
  type Take,
  TAKES,
  usualTake,
} from './deliveries';
export { type BoxLabel, readBoxLabel } from './labels';
export {
  doubtfulDates,
  isPastDate,
  type Lot,
  type LotAge,
  lotAge,
  runningLow,
  STOCK_ITEMS,
  type StockItem,
} from './lots';
export { judgeSample, PRINT_STATES, type PrintState, type Sample } from './samples';
export { bestSupplier, leakShare, recordWords, type SupplierRecord } from './suppliers';
export { chooseLots, type LotOffer, type PriceBesideLeak, type WhatToFit, whatToFit } from './whatToFit';
