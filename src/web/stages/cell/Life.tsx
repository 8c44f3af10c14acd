import {
  Button,
  LinearProgress,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableRow,
  Typography,
} from '@mui/material';
import { lazy, Suspense } from 'react';
import { serviceGainOf } from '../../../core/advice/cell';
import { lifeQuestion, shopLifeOf, usesOf, visitWords } from '../../../core/advice/life';
import { money } from '../../../core/craft/money';
import { figure } from '../../../core/craft/judgement';
import { compareLives, type LifeInput, lifeRange, lifeWords } from '../../../core/craft/life';
import type { Lot } from '../../../core/craft/stock';
import { Section } from '../../kit/Section';
import { HeadRow } from '../../kit/HeadRow';
import { FactCard } from '../../job/FactCard';
import { MeasureField } from '../../kit/fields';
import { useJob } from '../../job/JobContext';
import type { WellState } from '../../../core/logbook';
import { useForecasts } from './useForecasts';
const LifeChart = lazy(() => import('../../figures/LifeChart'));

const MOST_COMPARED = 4;

/** How the owner uses what draws on the cell; the book’s figures until somebody asked. */
export function UsageCard() {
  const { state } = useJob();
  const uses = usesOf(state);
  return (
    <FactCard
      kind="cell.usage"
      title="How it is used"
      recorded={state.facts.usage}
      defaults={{ uses: uses.map(({ name }) => ({ name, secondsPerDay: Number.NaN })) }}
      hint={
        <Typography color="text.secondary" sx={{ mt: 0.5 }}>
          From the owner. Until then the book’s figures are used.
        </Typography>
      }
    >
      {uses.map(({ name, secondsPerDay }, index) => (
        <MeasureField
          key={name}
          name={`uses.${index}.secondsPerDay`}
          label={`${name}, a day`}
          quantity="durationS"
          helper={`the book assumes ${figure(secondsPerDay)} s`}
        />
      ))}
    </FactCard>
  );
}

/** The forecast as it is drawn, or why it is not there. */
function Drawing({
  progress,
  broke,
  onStop,
  onAgain,
}: {
  readonly progress: number | null;
  readonly broke: boolean;
  readonly onStop: () => void;
  readonly onAgain: () => void;
}) {
  return progress !== null ? (
    <Stack direction="row" spacing={2} sx={{ alignItems: 'center' }}>
      <LinearProgress
        variant="determinate"
        value={progress * 100}
        aria-label="Calculating the forecast"
        sx={{ flexGrow: 1 }}
      />
      <Button onClick={onStop}>Stop</Button>
    </Stack>
  ) : (
    <Stack direction="row" spacing={2} sx={{ alignItems: 'center' }}>
      <Typography>
        {broke ? 'The forecast failed. The life of this cell is not known.' : 'The forecast was stopped.'}
      </Typography>
      <Button onClick={onAgain}>Calculate again</Button>
    </Stack>
  );
}

function Candidates({
  compared,
  lots,
  currency,
}: {
  readonly compared: ReturnType<typeof compareLives>;
  readonly lots: readonly Lot[];
  readonly currency: string;
}) {
  return (
    <Table size="small" aria-label="Candidates in stock" sx={{ mt: 1, '& td, & th': { px: 1 } }}>
      <HeadRow heads={['Cell, lot', 'Early end', 'Median', 'Cost per year']} />
      <TableBody>
        {compared.map(({ lotId, range, minorPerYear }) => {
          const lot = lots.find(({ id }) => id === lotId);
          return (
            <TableRow key={lotId}>
              <TableCell>
                {lot?.code}, {lot?.lotCode}
              </TableCell>
              <TableCell>{range ? lifeWords(range.p10Months) : '–'}</TableCell>
              <TableCell>
                {range ? `${lifeWords(range.p50Months)}${range.asHere ? ', as here' : ''}` : '–'}
              </TableCell>
              <TableCell>{minorPerYear === null ? '–' : money(Math.round(minorPerYear), currency)}</TableCell>
            </TableRow>
          );
        })}
      </TableBody>
    </Table>
  );
}

function LifeInWords({
  life,
  here,
}: {
  readonly life: NonNullable<ReturnType<typeof useForecasts>['lives']>[number];
  readonly here: ReturnType<typeof shopLifeOf>;
}) {
  const { today } = useJob();
  return (
    <>
      {life.verdict === 'forecast' && (
        <Typography sx={{ mt: 1 }}>
          <strong>{lifeRange(life)}</strong>, median {lifeWords(life.p50Months)}. {life.reasons.join(' ')}
        </Typography>
      )}
      {here && (
        <Typography sx={{ mt: 1 }}>
          {here.corrected && (
            <>
              Life of these cells in this shop: <strong>{lifeRange(here.corrected)}</strong>, median{' '}
              {lifeWords(here.corrected.p50Months)}.{' '}
            </>
          )}
          {here.reasons.join(' ')}
        </Typography>
      )}
      {life.verdict === 'forecast' && <Typography sx={{ mt: 1 }}>{visitWords(life, here, today)}</Typography>}
    </>
  );
}

/** How long the candidates last, drawn in a worker; the first is what goes in, or went in. */
export function LifeCard({
  lots,
  title,
  well,
}: {
  readonly lots: readonly Lot[];
  readonly title: string;
  readonly well: WellState;
}) {
  const { state, today, book, context } = useJob();
  const asked = lots.slice(0, MOST_COMPARED).flatMap((lot): { lot: Lot; input: LifeInput }[] => {
    const input = lifeQuestion(state, well, lot.code, lot, today, book);
    return typeof input === 'string' ? [] : [{ lot, input }];
  });
  const inputs = asked.map(({ input }) => input);
  const { lives, broke, progress, stop, again } = useForecasts(inputs, JSON.stringify(inputs));
  const [first] = asked;
  if (!first) {
    const why = lots[0]
      ? lifeQuestion(state, well, lots[0].code, lots[0], today, book)
      : 'No cell can be fitted yet.';
    return (
      <Section title={title}>
        <Typography>{typeof why === 'string' ? why : ''}</Typography>
      </Section>
    );
  }
  const compared = lives
    ? compareLives(
        asked.map(({ lot }) => lot),
        lives,
        asked.map(({ lot }, index) => (lives[index] ? shopLifeOf(lives[index], lot) : null)),
      )
    : [];
  const life = lives?.[0];
  const here = life ? shopLifeOf(life, first.lot) : null;
  const gain = serviceGainOf(state, well, first.lot.code, book, today);
  return (
    <Section title={title}>
      {(progress !== null || lives === null) && (
        <Drawing progress={progress} broke={broke} onStop={stop} onAgain={again} />
      )}
      {life?.verdict === 'no forecast' && <Typography>{life.reasons.join(' ')}</Typography>}
      {life?.verdict !== 'no forecast' && (
        <Suspense fallback={<LinearProgress aria-label="Loading the chart" />}>
          <LifeChart life={life ?? null} title={`${first.lot.code} in this watch`} />
        </Suspense>
      )}
      {life && <LifeInWords life={life} here={here} />}
      {compared.length > 1 && (
        <Candidates
          compared={compared}
          lots={asked.map(({ lot }) => lot)}
          currency={context.policy.currency}
        />
      )}
      {gain?.verdict === 'a service gains' && (
        <Typography sx={{ mt: 1 }}>{gain.reasons.join(' ')}</Typography>
      )}
    </Section>
  );
}
