import { TableCell, TableHead, TableRow } from '@mui/material';

/** The one row at the head of a table: what each column says. */
export function HeadRow({ heads }: { readonly heads: readonly string[] }) {
  return (
    <TableHead>
      <TableRow>
        {heads.map((head) => (
          <TableCell key={head} sx={{ whiteSpace: 'nowrap' }}>
            {head}
          </TableCell>
        ))}
      </TableRow>
    </TableHead>
  );
}
