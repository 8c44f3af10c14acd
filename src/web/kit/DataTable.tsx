import { Box, Table, TableBody } from '@mui/material';
import type { ReactNode } from 'react';
import { HeadRow } from './HeadRow';

/** A table that scrolls sideways by itself, with a keyboard too, where it is wider than its place. */
export function DataTable({
  label,
  heads,
  sx = {},
  children,
}: {
  readonly label: string;
  readonly heads: readonly string[];
  readonly sx?: object;
  /** The rows of its body. */
  readonly children: ReactNode;
}) {
  return (
    <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label={label}>
      <Table size="small" sx={sx}>
        <HeadRow heads={heads} />
        <TableBody>{children}</TableBody>
      </Table>
    </Box>
  );
}
