import {
  Box,
  Button,
  Checkbox,
  Paper,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material';
import { memo, useCallback, useDeferredValue, useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { Book } from '../../core/craft/book';
import { Loading } from '../kit/Loading';
import { HeadRow } from '../kit/HeadRow';
import {
  type CellQuery,
  type CellType,
  chemistries,
  FINDER_WITHIN_MM,
  type FoundCell,
  lookAlikesHere,
  openFinder,
  readCellMarking,
} from '../../core/craft/cells';
import { capital, figure } from '../../core/craft/judgement';
import { bareCode } from '../../core/craft/movements';
import { readQuantity } from '../../core/craft/units';
import { useBook } from '../api/book';
import { useShop } from '../api/resources';
import { LampAnswer } from '../kit/Lamp';
import { CellFigure } from '../figures/CellFigure';
import { TakeButton } from '../kit/TakeButton';
import { StageLayout } from '../kit/StageLayout';

const MOST_BESIDE = 4;
const SHOWN = 24;
const WIDEST_PX = 96;

function sizeWords({ diameterMm, heightMm }: CellType): string {
  return diameterMm === null || heightMm === null
    ? 'not known'
    : `${figure(diameterMm)} × ${figure(heightMm)} mm`;
}

function capacityWords({ capacityMinMAh, capacityMaxMAh, capacityEstimated }: CellType): string {
  return capacityMinMAh === null || capacityMaxMAh === null
    ? 'not known'
    : `${figure(capacityMinMAh)} to ${figure(capacityMaxMAh)} mAh${capacityEstimated ? ', estimated' : ''}`;
}

/** A length as typed, in whatever unit; null where it is none. */
function typedMm(text: string): number | null {
  const read = readQuantity(text, 'lengthMm');
  return read.verdict === 'read' ? read.value : null;
}

/** The cells chosen, to one scale on one line, so that their heights are compared by eye. */
const SideBySide = memo(function SideBySide({ cells }: { readonly cells: readonly CellType[] }) {
  const tallest = Math.max(...cells.map(({ heightMm }) => heightMm ?? 0));
  const scale = WIDEST_PX / Math.max(...cells.map(({ diameterMm }) => diameterMm ?? 0), 1);
  return (
    <Paper component="section" aria-label="Side by side" sx={{ p: 2 }}>
      <Typography variant="h3" component="h2">
        Side by side, to one scale
      </Typography>
      <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Compared">
        <Table size="small" sx={{ '& td, & th': { px: 1 } }}>
          <TableHead>
            {/* One line that all of them stand on, each over its own column. */}
            <TableRow sx={{ '& .MuiTableCell-root': { verticalAlign: 'bottom' } }}>
              <TableCell>Side view</TableCell>
              {cells.map(({ code, chemistry, diameterMm, heightMm }) => (
                <TableCell key={`${code}-${chemistry}`} sx={{ lineHeight: 0, pb: 0.25 }}>
                  {diameterMm !== null && heightMm !== null && (
                    <CellFigure code={code} diameterMm={diameterMm} heightMm={heightMm} scale={scale} />
                  )}
                </TableCell>
              ))}
            </TableRow>
            <TableRow>
              <TableCell>Cell</TableCell>
              {cells.map(({ code, chemistry }) => (
                <TableCell key={`${code}-${chemistry}`}>
                  <Typography variant="mark" component="span" sx={{ fontSize: '1.05rem' }}>
                    {code}
                  </Typography>
                </TableCell>
              ))}
            </TableRow>
          </TableHead>
          <TableBody>
            {(
              [
                ['Size', sizeWords],
                [
                  'Height compared',
                  ({ heightMm }: CellType) =>
                    heightMm === null
                      ? '–'
                      : heightMm === tallest
                        ? 'the tallest'
                        : `${figure(tallest - heightMm)} mm less`,
                ],
                ['Chemistry', ({ chemistry }: CellType) => chemistries[chemistry].words],
                ['Voltage', ({ nominalV }: CellType) => `${figure(nominalV)} V`],
                ['Drain', ({ drain }: CellType) => drain],
                ['Capacity', capacityWords],
                ['All names', ({ names }: CellType) => names.join(', ')],
              ] as const
            ).map(([head, of]) => (
              <TableRow key={head}>
                <TableCell component="th" scope="row">
                  {head}
                </TableCell>
                {cells.map((cell) => (
                  <TableCell key={cell.code}>{of(cell)}</TableCell>
                ))}
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Box>
    </Paper>
  );
});

const HEADS = ['Compare', 'Cell', 'Size', 'Chemistry', 'Drain', 'Also called'];

const FoundRow = memo(function FoundRow({
  found: { cell, name, offMm },
  isBeside,
  full,
  onBeside,
}: {
  readonly found: FoundCell;
  readonly isBeside: boolean;
  readonly full: boolean;
  readonly onBeside: (cell: CellType, on: boolean) => void;
}) {
  return (
    <TableRow>
      <TableCell sx={{ py: 0 }}>
        <Checkbox
          checked={isBeside}
          disabled={!isBeside && full}
          onChange={(_, on) => onBeside(cell, on)}
          slotProps={{ input: { 'aria-label': `${cell.code} beside the others` } }}
        />
      </TableCell>
      <TableCell>
        <Typography variant="mark" component="span" sx={{ fontSize: '1.05rem' }}>
          {cell.code}
        </Typography>
        {name === cell.code ? '' : ` (${name})`}
      </TableCell>
      <TableCell sx={{ whiteSpace: 'nowrap' }}>{sizeWords(cell)}</TableCell>
      <TableCell sx={{ whiteSpace: 'nowrap' }}>
        {chemistries[cell.chemistry].words}, {figure(cell.nominalV)} V
      </TableCell>
      <TableCell>{cell.drain}</TableCell>
      <TableCell>{cell.names.filter((each) => each !== cell.code).join(', ')}</TableCell>
      {offMm !== null && <TableCell sx={{ whiteSpace: 'nowrap' }}>{figure(offMm)} mm</TableCell>}
    </TableRow>
  );
});

const Found = memo(function Found({
  found,
  beside,
  onBeside,
}: {
  readonly found: readonly FoundCell[];
  readonly beside: readonly CellType[];
  readonly onBeside: (cell: CellType, on: boolean) => void;
}) {
  return (
    <Paper component="section" aria-label="Found" sx={{ p: 2 }}>
      <Typography variant="h3" component="h2">
        {found.length === 0 ? 'No cell found' : `${found.length} found`}
      </Typography>
      <Table size="small" sx={{ '& td, & th': { px: 1 } }}>
        <HeadRow heads={found.some(({ offMm }) => offMm !== null) ? [...HEADS, 'Difference'] : HEADS} />
        <TableBody>
          {found.slice(0, SHOWN).map((each) => (
            <FoundRow
              key={`${each.cell.code}-${each.cell.chemistry}-${each.cell.drain}`}
              found={each}
              isBeside={beside.includes(each.cell)}
              full={beside.length >= MOST_BESIDE}
              onBeside={onBeside}
            />
          ))}
        </TableBody>
      </Table>
    </Paper>
  );
});

const ByCalibre = memo(function ByCalibre({
  book,
  name,
  onName,
}: {
  readonly book: Book;
  readonly name: string;
  readonly onName: (name: string) => void;
}) {
  const code = bareCode(name);
  const calibres =
    code.length < 2
      ? []
      : book.calibres.filter((calibre) => bareCode(calibre.code).includes(code)).slice(0, 6);
  if (calibres.length === 0) return null;
  return (
    <Paper component="section" aria-label="By calibre" sx={{ p: 2 }}>
      {calibres.map((calibre) => (
        <Stack key={calibre.id} direction="row" spacing={1} sx={{ alignItems: 'center' }}>
          <Typography>
            <Link to={`/book/calibres/${calibre.id}`}>{calibre.code}</Link> takes{' '}
            {calibre.charge?.kitCode ??
              (calibre.wells
                .map(({ cellCode }) => cellCode || 'a cell that is not entered yet')
                .join(' and ') ||
                'a cell that is not entered yet')}
          </Typography>
          {[...new Set(calibre.wells.map(({ cellCode }) => cellCode))]
            .filter((cellCode) => cellCode !== '')
            .map((cellCode) => (
              <Button key={cellCode} onClick={() => onName(cellCode)}>
                Show {cellCode}
              </Button>
            ))}
        </Stack>
      ))}
    </Paper>
  );
});

/** What the name typed says, and what it is easily confused with. */
const NameRead = memo(function NameRead({
  book,
  name,
  count,
}: {
  readonly book: Book;
  readonly name: string;
  /** How many cells were found. */
  readonly count: number;
}) {
  const reading = name.trim() === '' ? null : readCellMarking(name, book.cellTable);
  const cell = reading?.verdict === 'read' ? reading.cell : null;
  // Part of a name is no name yet: what it may become stands beside it.
  const begun = (reading?.verdict === 'asks' || reading?.verdict === 'not read') && count > 0;
  const alike = cell ? lookAlikesHere(cell, {}, book.cellTable).list : [];
  return (
    <>
      <LampAnswer
        question="Name"
        tone={reading === null || begun ? 'open' : reading.verdict === 'read' ? 'good' : 'care'}
        answer={
          cell
            ? cell.code
            : reading === null
              ? 'Nothing entered yet'
              : begun
                ? 'Part of a name'
                : capital(reading.verdict)
        }
        reasons={
          reading === null
            ? ['Enter a name, or the diameter and height from the caliper.']
            : begun
              ? [`${count} cells have this in a name.`]
              : reading.reasons.map(capital)
        }
      />
      {alike.length > 0 && (
        <LampAnswer
          question="Easily confused with"
          tone="open"
          answer={[...new Set(alike.map((each) => each.name))].slice(0, 8).join(', ')}
          reasons={[
            'For information. It matters only if one of them is in the watch, in the stock or on order.',
          ]}
        />
      )}
    </>
  );
});

/** A size as the caliper says it: typed by hand, by the caliper itself, or taken from it. */
function SizeField({
  label,
  value,
  onText,
  helper,
}: {
  readonly label: string;
  readonly value: string;
  readonly onText: (text: string) => void;
  readonly helper: string;
}) {
  return (
    <TextField
      label={label}
      value={value}
      onChange={(event) => onText(event.target.value)}
      helperText={helper}
      slotProps={{
        htmlInput: { 'data-wanted': true, 'data-measure': 'lengthMm', inputMode: 'decimal' },
        input: {
          endAdornment: <TakeButton device="caliper" ask={{ ask: 'length' }} label={label} onText={onText} />,
        },
      }}
    />
  );
}

/** Keys go into the fields at once; what they find follows as the page has time, so that none waits. */
function Finder({ book }: { readonly book: Book }) {
  const finder = useMemo(() => openFinder(book.cellTable), [book]);
  const [name, setName] = useState('');
  const [across, setAcross] = useState('');
  const [height, setHeight] = useState('');
  const [beside, setBeside] = useState<readonly CellType[]>([]);
  const asked = useDeferredValue<CellQuery>(
    useMemo(() => ({ name, diameterMm: typedMm(across), heightMm: typedMm(height) }), [name, across, height]),
  );
  const found = useMemo(() => finder.find(asked), [finder, asked]);
  const onBeside = useCallback(
    (cell: CellType, on: boolean) =>
      setBeside((before) => (on ? [...before, cell] : before.filter((other) => other !== cell))),
    [],
  );
  return (
    <StageLayout
      mat={
        <>
          <Typography variant="h1">Cells</Typography>
          <Paper component="section" aria-label="Search" sx={{ p: 2 }}>
            <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
              <TextField
                label="Name, or calibre"
                value={name}
                autoFocus
                onChange={(event) => setName(event.target.value)}
                helperText="any name or part of a name, in any spelling"
                fullWidth
              />
              <SizeField
                label="Across"
                value={across}
                onText={setAcross}
                helper={`mm, within ${figure(FINDER_WITHIN_MM)}`}
              />
              <SizeField label="Height" value={height} onText={setHeight} helper="mm" />
            </Stack>
          </Paper>
          <ByCalibre book={book} name={asked.name} onName={setName} />
          {beside.length > 0 && <SideBySide cells={beside} />}
          {(asked.name.trim() !== '' || asked.diameterMm !== null || asked.heightMm !== null) && (
            <Found found={found} beside={beside} onBeside={onBeside} />
          )}
        </>
      }
      lamp={<NameRead book={book} name={asked.name} count={found.length} />}
    />
  );
}

/** Every cell of the table by name, by measured size or by calibre, and several side by side. */
export default function CellsPage() {
  const { data: shop } = useShop();
  const { book } = useBook(shop?.catalogueRevision);
  return book ? <Finder book={book} /> : <Loading what="the cells" />;
}
