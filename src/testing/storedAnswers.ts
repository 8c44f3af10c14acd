/**
 * Every table of a counter that holds answers worked out from what was recorded. `emptied`: the program fills it again by
 * itself; what a forecast was when a cell was fitted is written once and stays.
 */
export const STORED_ANSWERS: readonly { readonly table: string; readonly emptied: boolean }[] = [
  { table: 'job_summary', emptied: false },
  { table: 'tool_use', emptied: true },
  { table: 'opener_wanted', emptied: true },
  { table: 'movement_seen', emptied: true },
  { table: 'cell_in_watch', emptied: true },
  { table: 'cell_leaked', emptied: true },
  { table: 'supplier_count', emptied: true },
  { table: 'leak_seen', emptied: true },
  { table: 'next_visit', emptied: true },
  { table: 'cell_visit', emptied: false },
  { table: 'cell_visit_fitted', emptied: false },
];

/** Every other table: what was recorded, and indexes that the database itself keeps over it. */
export const RECORDED = [
  'attachment',
  'catalogue_record',
  'customer',
  'customer_revision',
  'day_close',
  'delivery',
  'device',
  'device_output',
  'driver_settings',
  'entry',
  'health',
  'job',
  'lot_quarantine',
  'lot_sample',
  'migration',
  'policy_revision',
  'shop',
  'spent_bin',
  'spent_collection',
  'spent_ledger',
  'stock_ledger',
  'stock_lot',
  'stock_order',
  'technician',
  'visit',
  'watch',
  'written_once',
];

/** As if nothing had been worked out yet, in a database that no server has open. */
export const FORGET_ANSWERS = [
  ...STORED_ANSWERS.filter(({ emptied }) => emptied).map(({ table }) => `DELETE FROM ${table};`),
  "UPDATE job_summary SET basis = '', summary = '{}', search = '';",
].join('\n');
