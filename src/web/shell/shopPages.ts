/** The pages behind the counter. */
export const SHOP_PAGES = [
  ['/running', 'Running'],
  ['/light', 'Light'],
  ['/cells', 'Cells'],
  ['/stock', 'Stock'],
  ['/leaks', 'Leaks'],
  ['/book', 'Book'],
  ['/tools', 'Tools'],
  ['/policy', 'Policy'],
  ['/devices', 'Devices'],
] as const;
