import {
  Box,
  LinearProgress,
  Paper,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material';
import { Link, useParams } from 'react-router';
import type { Book } from '../../core/catalogue';
import { figure } from '../../core/judgement';
import type { Calibre } from '../../core/movements';
import { formatLignes } from '../../core/units';
import { useBook, useShop } from '../api/resources';
import { Caution, LampAnswer } from '../app/Lamp';
import { CalibreFigure } from '../figures/CalibreFigure';
import { capital } from '../job/FactCard';
import { StageLayout } from '../job/StageLayout';
import { NoSuchPage } from './NoSuchPage';

function CalibrePage({ book, calibre }: { readonly book: Book; readonly calibre: Calibre }) {
  const rows: readonly (readonly [string, string])[] = [
    ['Maker', book.maker(calibre.makerId)?.name ?? calibre.makerId],
    ['Former numbers', calibre.formerCodes.join(', ') || 'none'],
    [
      'Size',
      `${figure(calibre.widthMm, 1)} × ${figure(calibre.lengthMm, 1)} × ${figure(calibre.heightMm)} mm (${formatLignes(calibre.widthMm)})`,
    ],
    ['Functions', calibre.functions.join(', ')],
    ['Step interval', calibre.stepIntervalS === null ? 'display' : `${calibre.stepIntervalS} s`],
    ['Low supply', calibre.lowSupplySignal ?? 'no signal'],
    ['Current', `typically ${figure(calibre.typicalUA)} µA, at most ${figure(calibre.limitUA)} µA`],
    [
      'Coil',
      calibre.coilMinKOhm === null
        ? 'none'
        : `${figure(calibre.coilMinKOhm)} to ${figure(calibre.coilMaxKOhm ?? 0)} kΩ`,
    ],
    ['Lowest voltage', `${figure(calibre.lowestV)} V`],
    ['Reset contact', calibre.resetContact ?? 'none'],
    ['Crown', calibre.crownPositions.join(' · ') || 'none'],
  ];
  return (
    <StageLayout
      mat={
        <>
          <Typography variant="h1">{calibre.code}</Typography>
          <Paper sx={{ p: 2 }}>
            <Box
              component="dl"
              sx={{
                display: 'grid',
                gridTemplateColumns: 'max-content 1fr',
                columnGap: 3,
                rowGap: 0.75,
                m: 0,
              }}
            >
              {rows.map(([name, value]) => (
                <Box key={name} sx={{ display: 'contents' }}>
                  <Typography component="dt" sx={{ fontWeight: 700 }}>
                    {name}
                  </Typography>
                  <Typography component="dd" sx={{ m: 0 }}>
                    {value}
                  </Typography>
                </Box>
              ))}
            </Box>
          </Paper>
          <Stack direction="row">
            <Link to="/book">All calibres</Link>
          </Stack>
        </>
      }
      lamp={
        <>
          <LampAnswer
            question="It wants"
            standing="good"
            answer={calibre.wells.map((well) => well.cellCode).join(' and ')}
            reasons={calibre.wells.map((well) =>
              capital(
                `${calibre.wells.length > 1 ? `${well.name}: ` : ''}held by ${well.heldBy}, ${well.faceUp} up.`,
              ),
            )}
          >
            <CalibreFigure
              calibre={calibre}
              cellDiameterMm={(code) => book.cell(code)?.diameterMm ?? null}
              size={250}
            />
            <Typography variant="body2">
              Seen from behind. Hatched: coil, do not touch. Dashed: the holder’s push.
            </Typography>
          </LampAnswer>
          {calibre.cautions.map((caution) => (
            <Caution key={caution}>{caution}</Caution>
          ))}
        </>
      }
    />
  );
}

function CalibreList({ book }: { readonly book: Book }) {
  return (
    <Paper component="section" aria-label="Calibres" sx={{ p: 2 }}>
      <Typography variant="h1">Book</Typography>
      <Typography color="text.secondary">
        Revision {book.revision}: {book.calibres.length} calibres, {book.caseTypes.length} case types,{' '}
        {book.cells.length} cell sizes.
      </Typography>
      {book.calibres.length === 0 ? (
        <Typography sx={{ mt: 1 }}>
          No calibre is in the book yet. Jobs go on: name the movement by hand, and fit by the cell found.
        </Typography>
      ) : (
        <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Calibres in the book">
          <Table size="small">
            <TableHead>
              <TableRow>
                {['Calibre', 'Maker', 'Cell', 'Size', 'Functions'].map((head) => (
                  <TableCell key={head}>{head}</TableCell>
                ))}
              </TableRow>
            </TableHead>
            <TableBody>
              {book.calibres.map((calibre) => (
                <TableRow key={calibre.id}>
                  <TableCell>
                    <Link to={`/book/${calibre.id}`}>{calibre.code}</Link>
                  </TableCell>
                  <TableCell>{book.maker(calibre.makerId)?.name}</TableCell>
                  <TableCell>{calibre.wells.map((well) => well.cellCode).join(', ')}</TableCell>
                  <TableCell>
                    {figure(calibre.widthMm, 1)} mm, {formatLignes(calibre.widthMm)}
                  </TableCell>
                  <TableCell>{calibre.functions.join(', ')}</TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </Box>
      )}
    </Paper>
  );
}

/** The calibres of the book, and each with its layout. */
export default function BookView() {
  const { calibreId } = useParams();
  const { data: shop } = useShop();
  const { book } = useBook(shop?.catalogueRevision);
  if (!book) return <LinearProgress aria-label="Loading the book" />;
  if (calibreId === undefined) return <CalibreList book={book} />;
  const calibre = book.calibre(calibreId);
  return calibre ? <CalibrePage book={book} calibre={calibre} /> : <NoSuchPage what="calibre" />;
}
