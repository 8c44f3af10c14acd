import { Box, Table, TableBody, TableCell, TableRow } from '@mui/material';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useRef } from 'react';
import { HeadRow } from './HeadRow';
import { colours } from './theme';

/** Up to so many rows are simply drawn: a page finds words in them, too. */
const ALL_DRAWN = 80;
const ROW_PX = 46;
const OVERSCAN = 15;

interface Props<T> {
  readonly label: string;
  readonly heads: readonly string[];
  readonly rows: readonly T[];
  readonly keyOf: (row: T) => string;
  /** The cells of one row. */
  readonly cells: (row: T) => ReactNode;
  readonly sx?: object;
}

/** A table of any length: it scrolls in its place, and draws only the rows that are seen and some beside them. */
export function VirtualTable<T>(props: Props<T>) {
  const { label, heads, rows, keyOf, cells, sx = {} } = props;
  if (rows.length > ALL_DRAWN) return <Windowed {...props} />;
  return (
    <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label={label}>
      <Table size="small" sx={sx}>
        <HeadRow heads={heads} />
        <TableBody>
          {rows.map((row) => (
            <TableRow key={keyOf(row)}>{cells(row)}</TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}

function Windowed<T>({ label, heads, rows, keyOf, cells, sx = {} }: Props<T>) {
  // What the window answers changes without its identity: nothing of it may be kept from one drawing to the next.
  'use no memo';
  const place = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- said above
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => place.current,
    estimateSize: () => ROW_PX,
    overscan: OVERSCAN,
  });
  const shown = virtual.getVirtualItems();
  const before = shown[0]?.start ?? 0;
  const after = virtual.getTotalSize() - (shown.at(-1)?.end ?? 0);
  const room = (px: number) => (
    <TableRow aria-hidden>
      <TableCell colSpan={heads.length} sx={{ p: 0, border: 0, height: px }} />
    </TableRow>
  );
  return (
    <Box
      ref={place}
      sx={{ overflow: 'auto', maxHeight: '70dvh', '& thead th': STICKS }}
      tabIndex={0}
      role="region"
      aria-label={label}
    >
      <Table size="small" sx={sx} aria-rowcount={rows.length + 1}>
        <HeadRow heads={heads} />
        <TableBody>
          {before > 0 && room(before)}
          {shown.map(({ index }) => {
            const row = rows[index] as T;
            return (
              <TableRow
                key={keyOf(row)}
                data-index={index}
                aria-rowindex={index + 2}
                ref={virtual.measureElement}
              >
                {cells(row)}
              </TableRow>
            );
          })}
          {after > 0 && room(after)}
        </TableBody>
      </Table>
    </Box>
  );
}

const STICKS = { position: 'sticky', top: 0, zIndex: 1, bgcolor: colours.paper } as const;
