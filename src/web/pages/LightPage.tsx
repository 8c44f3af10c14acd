import { Box, Paper, TableCell, Typography } from '@mui/material';
import { Link } from 'react-router';
import type { JobSummary } from '../../contract';
import { figure } from '../../core/craft/judgement';
import { localTime } from '../../core/craft/time';
import type { LightPlaceTool } from '../../core/craft/tools';
import { useBook } from '../api/book';
import { useShopClock } from '../api/clock';
import { useRack, useShop } from '../api/resources';
import { Caution, LampAnswer } from '../kit/Lamp';
import { Loading } from '../kit/Loading';
import { StageLayout } from '../kit/StageLayout';
import { VirtualTable } from '../kit/VirtualTable';

const HEADS = ['Watch', 'There since', 'Steps', 'Ready', 'Look again'];

type LitJob = JobSummary & { readonly lit: NonNullable<JobSummary['lit']> };

/** One light of the shop and what lies under it. */
function Place({
  name,
  words,
  most,
  jobs,
  zone,
  nowUtc,
}: {
  readonly name: string;
  readonly words: string;
  readonly most: number | null;
  readonly jobs: readonly LitJob[];
  readonly zone: string;
  readonly nowUtc: string;
}) {
  const at = (utc: string | null): string =>
    utc === null ? 'not known' : localTime(utc, zone, 'ddd D MMM HH:mm');
  return (
    <Paper component="section" aria-label={name} sx={{ p: 2 }}>
      <Typography variant="h2">{name}</Typography>
      <Typography color="text.secondary">{words}</Typography>
      {most !== null && jobs.length > most && (
        <Box sx={{ my: 1 }}>
          <Caution>
            {jobs.length} watches, and {most} lie in its light at once: {jobs.length - most} wait in the
            shade.
          </Caution>
        </Box>
      )}
      {jobs.length === 0 ? (
        <Typography>Nothing lies there.</Typography>
      ) : (
        <VirtualTable
          label={`Under ${name}`}
          heads={HEADS}
          rows={jobs}
          keyOf={({ lit }) => lit.entryId}
          cells={({ id, ticket, watch, lit }) => (
            <>
              <TableCell component="th" scope="row">
                <Link to={`/jobs/${id}/cell`}>{ticket}</Link> {watch}
              </TableCell>
              <TableCell>{at(lit.sinceUtc)}</TableCell>
              <TableCell>
                {lit.stepsNormally === null ? 'not looked at' : lit.stepsNormally ? 'normally' : 'not yet'}
              </TableCell>
              <TableCell>
                {lit.amiss ??
                  `${at(lit.readyUtc)}, ${lit.readyLatestUtc === null ? 'or never' : `at the latest ${at(lit.readyLatestUtc)}`}`}
              </TableCell>
              <TableCell>
                {lit.stepsNormally === true
                  ? 'once it is ready'
                  : at(lit.lookAgainUtc.find((each) => each > nowUtc) ?? lit.lookAgainUtc.at(-1) ?? null)}
              </TableCell>
            </>
          )}
        />
      )}
    </Paper>
  );
}

const litWords = ({ lux, measuredAtMm, caseRiseK, lit, litFrom, litTo }: LightPlaceTool): string =>
  [
    `${figure(lux, 0)} lx ${measuredAtMm === null ? 'by daylight' : `at ${measuredAtMm} mm`}`,
    litFrom === null ? lit : `${litFrom} to ${litTo ?? ''} every day`,
    caseRiseK === null ? 'its warmth not measured' : `warms a case by ${figure(caseRiseK, 0)} K there`,
  ].join(', ');

/** The lights of this shop: which watch lies where, since when, when it is ready and looked at again. */
export default function LightPage() {
  const { data: jobs } = useRack();
  const { data: shop } = useShop();
  const { book } = useBook(shop?.catalogueRevision);
  const nowUtc = useShopClock();
  if (jobs === undefined || !shop || !book || nowUtc === null) return <Loading what="the light places" />;
  const { zone } = shop.shop;
  const lit = jobs
    .filter((job): job is LitJob => job.lit !== null)
    .sort((a, b) => a.lit.sinceUtc.localeCompare(b.lit.sinceUtc));
  const known = new Set(book.lightPlaces.map(({ id }) => id));
  const lost = lit.filter((job) => !known.has(job.lit.placeId));
  const look = lit.filter(
    (job) => job.lit.stepsNormally !== true && job.lit.lookAgainUtc.some((each) => each <= nowUtc),
  );
  const ready = lit.filter((job) => job.lit.readyUtc !== null && job.lit.readyUtc <= nowUtc);
  const amiss = lit.filter((job) => job.lit.amiss !== null);
  const told = (job: LitJob): string => `${job.ticket}, ${job.watch}.`;
  return (
    <StageLayout
      mat={
        <>
          <Typography variant="h1">Light places</Typography>
          {book.lightPlaces.length === 0 && (
            <Typography>
              No light is measured yet. Under <Link to="/tools">Tools</Link> a light place is entered: its
              lux, how warm a case gets there, and when it is lit.
            </Typography>
          )}
          {book.lightPlaces.map((place) => (
            <Place
              key={place.id}
              name={place.name}
              words={litWords(place)}
              most={place.watches}
              jobs={lit.filter((job) => job.lit.placeId === place.id)}
              zone={zone}
              nowUtc={nowUtc}
            />
          ))}
          {lost.length > 0 && (
            <Place
              name="Elsewhere"
              words="At places that are no longer among the tools."
              most={null}
              jobs={lost}
              zone={zone}
              nowUtc={nowUtc}
            />
          )}
        </>
      }
      lamp={
        <>
          <LampAnswer
            question="To look at"
            standing={look.length > 0 ? 'care' : 'open'}
            answer={
              look.length > 0
                ? `${look.length} now`
                : lit.length > 0
                  ? 'None just now'
                  : 'Nothing lies in the light'
            }
            reasons={look.map(told)}
          />
          {ready.length > 0 && (
            <LampAnswer
              question="Likely ready"
              standing="good"
              answer={`${ready.length}`}
              reasons={ready.map(told)}
            />
          )}
          {amiss.map((job) => (
            <Caution key={job.id}>
              {job.ticket}: {job.lit.amiss}
            </Caution>
          ))}
        </>
      }
    />
  );
}
