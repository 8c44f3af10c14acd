export {
  checkDelivery,
  type CheckedLine,
  codesOnOrder,
  type DeliveryLine,
  type OrderLine,
  orderOfNote,
  type Take,
  TAKES,
  usualTake,
} from './deliveries';
export { sinceCounted } from './counts';
export { readBoxLabel } from './labels';
export {
  doubtfulDates,
  isPastDate,
  type Lot,
  lotAge,
  REORDER_UNDER,
  runningLow,
  setAside,
  STOCK_ITEMS,
  type StockItem,
} from './lots';
export { judgeSample, PRINT_STATES, type PrintState } from './samples';
export { bestSupplier, recordWords, type SupplierRecord } from './suppliers';
export { type LotOffer, type WhatToFit, whatToFit } from './whatToFit';
