import { Box, LinearProgress, Stack, Typography } from '@mui/material';
import { lazy, type ReactNode, Suspense } from 'react';
import { Link } from 'react-router';
import type { Book } from '../../../core/craft/book';
import { median } from 'simple-statistics';
import { figuresFor } from '../../../core/craft/health';
import { capital, figure } from '../../../core/craft/judgement';
import type { Calibre } from '../../../core/craft/movements';
import { localDayInWords } from '../../../core/craft/time';
import { useCalibreHistory } from '../../api/resources';
import { Loading } from '../../kit/Loading';
import { Caution, LampAnswer } from '../../kit/Lamp';
import { colours } from '../../kit/theme';
import { Section } from '../../kit/Section';
import { CalibreFigure } from '../../figures/CalibreFigure';
import { SignFigure } from '../../figures/SignFigure';

const TrendChart = lazy(() => import('../../figures/TrendChart'));

function Line({ what, children }: { readonly what: string; readonly children: ReactNode }) {
  return (
    <Box sx={{ display: 'contents' }}>
      <Typography component="dt" sx={{ fontWeight: 700 }}>
        {what}
      </Typography>
      <Typography component="dd" sx={{ m: 0 }}>
        {children}
      </Typography>
    </Box>
  );
}

/** What a hand wants to know before it touches this movement, in one place. */
function AtTheBench({ calibre, book }: { readonly calibre: Calibre; readonly book: Book }) {
  const { current, coil, lowest } = figuresFor(calibre, book);
  const maker = book.maker(calibre.makerId);
  const whose = (source: string): string => (source === 'this movement' ? '' : ` (${source})`);
  return (
    <Section title="At the bench">
      <Stack direction="row" useFlexGap spacing={3} sx={{ flexWrap: 'wrap' }}>
        <Box sx={{ flex: '0 0 250px' }}>
          <CalibreFigure
            calibre={calibre}
            cellDiameterMm={(code) => book.cell(code)?.diameterMm ?? null}
            size={250}
          />
        </Box>
        <Box
          component="dl"
          sx={{
            display: 'grid',
            gridTemplateColumns: 'auto 1fr',
            columnGap: 2,
            rowGap: 0.5,
            alignContent: 'start',
            flex: '1 1 260px',
            minWidth: 0,
            m: 0,
          }}
        >
          {maker?.sign && (
            <Line what="Sign">
              <SignFigure sign={maker.sign} size={22} /> {maker.sign}
            </Line>
          )}
          <Line what={calibre.charge ? 'Kit' : 'Cell'}>
            {calibre.charge?.kitCode ??
              (calibre.wells
                .map(
                  ({ name, cellCode, faceUp, heldBy }) =>
                    `${calibre.wells.length > 1 ? `${name}: ` : ''}${cellCode || 'not known'}, ${faceUp} up, ${heldBy}`,
                )
                .join('; ') ||
                'not entered yet')}
          </Line>
          <Line what="Insulators">{calibre.insulators.join(' ') || 'none entered'}</Line>
          <Line what="Reset">{calibre.resetContact ?? 'none'}</Line>
          <Line what="Steps">
            {calibre.stepIntervalS === null ? 'no hands' : `every ${figure(calibre.stepIntervalS)} s`}
          </Line>
          <Line what="Low supply">{calibre.lowSupplySignal ?? 'shows nothing'}</Line>
          <Line what="Current">
            typically {figure(current.typicalUA)} µA, at most {figure(current.limitUA)} µA
            {whose(current.whose)}
          </Line>
          <Line what="Coil">
            {coil === null
              ? 'none'
              : `${figure(coil.minKOhm)} to ${figure(coil.maxKOhm)} kΩ${whose(coil.whose)}`}
          </Line>
          <Line what="Runs down to">
            {figure(lowest.volts)} V{whose(lowest.whose)}
          </Line>
          <Line what="Crown">{calibre.crownPositions.join(' · ') || 'none'}</Line>
        </Box>
      </Stack>
    </Section>
  );
}

function History({
  calibre,
  book,
  zone,
}: {
  readonly calibre: Calibre;
  readonly book: Book;
  readonly zone: string;
}) {
  const { data } = useCalibreHistory(calibre.id);
  if (!data) return <Loading what="this shop’s history" />;
  const day = (atUtc: string): string => localDayInWords(atUtc, zone);
  const currents = data.readings.flatMap(({ atUtc, currentUA }) =>
    currentUA === null ? [] : [{ atUtc, label: day(atUtc), value: currentUA }],
  );
  const limit = figuresFor(calibre, book).current;
  return (
    <Section title="History in this shop">
      {data.jobs === 0 ? (
        <Typography>None has been here yet.</Typography>
      ) : (
        <Stack spacing={1}>
          <Typography>
            {data.jobs} {data.jobs === 1 ? 'job' : 'jobs'}
            {data.firstAtUtc && data.lastAtUtc && data.jobs > 1
              ? ` from ${day(data.firstAtUtc)} to ${day(data.lastAtUtc)}`
              : ''}
            ; {data.leaked === 0 ? 'none leaked' : `${data.leaked} leaked`}
            {currents.length === 0
              ? ''
              : `; current measured on ${currents.length}, median ${figure(median(currents.map(({ value }) => value)))} µA`}
            .
          </Typography>
          {data.causes.length > 0 && (
            <Typography>
              Found: {data.causes.map(({ cause, jobs }) => `${cause} (${jobs})`).join(', ')}.
            </Typography>
          )}
          {currents.length > 1 && (
            <Suspense fallback={<LinearProgress aria-label="Loading the chart" />}>
              <TrendChart
                title={`Current of every ${calibre.code} measured here`}
                unit="µA"
                points={currents}
                limit={{ label: `limit, ${limit.of}`, value: limit.limitUA, eitherWay: false }}
              />
            </Suspense>
          )}
          <Typography>
            Lately:{' '}
            {data.latest.map(({ jobId, ticket, atUtc }, index) => (
              <span key={jobId}>
                {index > 0 && ', '}
                <Link to={`/jobs/${jobId}`}>{ticket}</Link> {day(atUtc)}
              </span>
            ))}
          </Typography>
        </Stack>
      )}
    </Section>
  );
}

/** The book page of a calibre: layout and figures, recipes, revisions, and what this shop knows of it. */
export function CalibreMat({
  calibre,
  book,
  zone,
}: {
  readonly calibre: Calibre;
  readonly book: Book;
  readonly zone: string;
}) {
  return (
    <>
      <AtTheBench calibre={calibre} book={book} />
      {calibre.recipes.length > 0 && (
        <Section title="Recipes">
          {calibre.recipes.map(({ what, steps }) => (
            <Box key={what} sx={{ mb: 1 }}>
              <Typography sx={{ fontWeight: 700 }}>{capital(what)}</Typography>
              <Box component="ol" sx={{ m: 0, pl: 3 }}>
                {steps.map((step) => (
                  <Typography component="li" key={step}>
                    {step}
                  </Typography>
                ))}
              </Box>
            </Box>
          ))}
        </Section>
      )}
      {calibre.revisions.length > 0 && (
        <Section title="Differences between revisions">
          <Box
            component="table"
            sx={{
              borderCollapse: 'collapse',
              width: '100%',
              '& td, & th': { textAlign: 'left', py: 0.5, pr: 1, borderTop: `1px solid ${colours.thread}` },
            }}
          >
            <thead>
              <tr>
                {['Revision', 'Identified by', 'Cell', 'Height', 'Jewels', 'Held by'].map((head) => (
                  <th key={head} scope="col">
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {calibre.revisions.map(({ name, seenBy, cellCode, heightMm, jewels, heldBy }) => (
                <tr key={name}>
                  <th scope="row">{name}</th>
                  <td>{seenBy}</td>
                  <td>{cellCode ?? 'the same'}</td>
                  <td>{heightMm === null ? 'the same' : `${figure(heightMm)} mm`}</td>
                  <td>{jewels ?? 'the same'}</td>
                  <td>{heldBy ?? 'the same'}</td>
                </tr>
              ))}
            </tbody>
          </Box>
        </Section>
      )}
      <History calibre={calibre} book={book} zone={zone} />
    </>
  );
}

export function CalibreLamp({ calibre }: { readonly calibre: Calibre }) {
  return (
    <>
      <LampAnswer
        question={calibre.charge ? `Charged by ${calibre.charge.by}: renewed by its kit` : 'It takes'}
        tone={calibre.wells.length === 0 ? 'open' : calibre.shopsOwn ? 'care' : 'good'}
        answer={
          calibre.charge?.kitCode ??
          (calibre.wells
            .map((well) => well.cellCode)
            .filter(Boolean)
            .join(' and ') ||
            'Not entered yet')
        }
        reasons={[
          ...calibre.wells.map((well) =>
            capital(
              `${calibre.wells.length > 1 ? `${well.name}: ` : ''}held by ${well.heldBy}, ${well.faceUp} up.`,
            ),
          ),
          ...(calibre.revisions.length > 0
            ? [
                `It has the revisions ${calibre.revisions.map(({ name }) => name).join(' and ')}: see how they differ.`,
              ]
            : []),
        ]}
      />
      {calibre.shopsOwn && (
        <Caution>
          Entered at the bench of this shop. Fields left blank were not known. Complete it with “Edit”, then
          clear the mark.
        </Caution>
      )}
      {calibre.cautions.map((caution) => (
        <Caution key={caution}>{caution}</Caution>
      ))}
    </>
  );
}
