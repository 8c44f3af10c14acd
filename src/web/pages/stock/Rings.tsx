import { Button, Paper, Table, TableBody, TableCell, TableRow, Typography } from '@mui/material';
import { Link } from 'react-router';
import type { StockResource } from '../../../contract';
import { ringBoxes, ringIsLow } from '../../../core/advice/seal';
import { localDay } from '../../../core/craft/time';
import { useBook } from '../../api/book';
import { type SeenShop, shopNow } from '../../api/resources';
import { HeadRow } from '../../kit/HeadRow';

const MOST_CASES = 4;

/** The assortment of rings as its boxes hold it: every size of book and stock, where it is used, and what to order. */
export function Rings({ stock, shop }: { readonly stock: StockResource; readonly shop: SeenShop }) {
  const { book } = useBook(shop.catalogueRevision);
  const boxes = book ? ringBoxes(book, stock.lots, localDay(shopNow(shop), shop.shop.zone)) : [];
  if (boxes.length === 0) return null;
  return (
    <Paper component="section" aria-label="Rings by size" sx={{ p: 2, overflowX: 'auto' }}>
      <Typography variant="h2">Rings by size</Typography>
      <Table size="small" aria-label="Rings by size">
        <HeadRow heads={['Section', 'Ring', 'Left', 'Seals', 'Order']} />
        <TableBody>
          {boxes.flatMap(({ sectionMm, rings }) =>
            rings.map((ring, at) => (
              <TableRow key={ring.code}>
                <TableCell>{at === 0 ? `${sectionMm.toFixed(2)} mm` : ''}</TableCell>
                <TableCell sx={{ whiteSpace: 'nowrap' }}>
                  <Typography variant="mark" component="span" sx={{ fontSize: '1rem' }}>
                    {ring.code}
                  </Typography>
                </TableCell>
                <TableCell>{ring.left}</TableCell>
                <TableCell>
                  {ring.caseCodes.length === 0
                    ? 'no case of the book'
                    : `${ring.caseCodes.slice(0, MOST_CASES).join(', ')}${ring.caseCodes.length > MOST_CASES ? ` and ${ring.caseCodes.length - MOST_CASES} more` : ''}`}
                </TableCell>
                <TableCell sx={{ py: 0 }}>
                  {ringIsLow(ring) && (
                    <Button
                      size="small"
                      component={Link}
                      to={`/stock/orders?ring=${encodeURIComponent(ring.code)}`}
                      aria-label={`Order ${ring.code}`}
                    >
                      Order
                    </Button>
                  )}
                </TableCell>
              </TableRow>
            )),
          )}
        </TableBody>
      </Table>
    </Paper>
  );
}
