import { Box, Button, Paper, Stack, TableCell, Typography } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import type { DeviceSays, JobSummary } from '../../contract';
import { type AtPlace, lightRack } from '../../core/advice/charging';
import { lightNow } from '../../core/craft/charging';
import { figure } from '../../core/craft/judgement';
import { localTime } from '../../core/craft/time';
import { type LightPlaceTool, litWhen } from '../../core/craft/tools';
import { useBook } from '../api/book';
import { useShopClock } from '../api/clock';
import { askDevice, faultWords, useConnected } from '../api/devices';
import { useRack, useShop } from '../api/resources';
import { Caution, LampAnswer } from '../kit/Lamp';
import { Loading } from '../kit/Loading';
import { StageLayout } from '../kit/StageLayout';
import { VirtualTable } from '../kit/VirtualTable';

const HEADS = ['Watch', 'There since', 'Steps', 'Ready', 'Next check'];

type LitJob = JobSummary & { readonly lit: NonNullable<JobSummary['lit']> };

/** The light of a place, measured now, against what is entered for it. */
function MeasureLight({ place }: { readonly place: LightPlaceTool }) {
  const connected = useConnected('light-meter', 'light');
  const [said, setSaid] = useState<DeviceSays | null>(null);
  if (!connected) return null;
  const fault = said && faultWords(said);
  const now = said?.says === 'figure' ? { lux: said.value, ...lightNow(place, said.value) } : null;
  return (
    <Stack direction="row" spacing={1.5} sx={{ my: 1, alignItems: 'center' }}>
      <Button
        variant="outlined"
        aria-label={`Measure the light of ${place.name}`}
        onClick={() => void askDevice('light-meter', { ask: 'light' }).then(setSaid)}
      >
        Measure
      </Button>
      <Box role="status">
        {fault && <Typography>■ {fault}</Typography>}
        {now?.verdict === 'as entered' && <Typography>{figure(now.lux, 0)} lx now, as entered.</Typography>}
        {now?.reasons.map((reason) => (
          <Typography key={reason}>{reason}</Typography>
        ))}
      </Box>
    </Stack>
  );
}

/** One light of the shop and what lies under it. */
function Place({
  place,
  watches,
  zone,
}: {
  readonly place: LightPlaceTool | null;
  readonly watches: readonly AtPlace<LitJob>[];
  readonly zone: string;
}) {
  const at = (utc: string | null): string => (utc === null ? 'not known' : localTime(utc, zone));
  const name = place?.name ?? 'Elsewhere';
  const waiting = watches.filter(({ waits }) => waits).length;
  return (
    <Paper component="section" aria-label={name} sx={{ p: 2 }}>
      <Typography variant="h2">{name}</Typography>
      <Typography color="text.secondary">
        {place === null ? 'At light places that were removed from the tools.' : placeWords(place)}
      </Typography>
      {place && <MeasureLight place={place} />}
      {waiting > 0 && place && (
        <Box sx={{ my: 1 }}>
          <Caution>
            {watches.length} watches are here and {place.watches} fit in the light: {waiting}{' '}
            {waiting === 1 ? 'waits' : 'wait'} in the shade. Charging times count from the moment a watch has
            room.
          </Caution>
        </Box>
      )}
      {watches.length === 0 ? (
        <Typography>No watch lies there.</Typography>
      ) : (
        <VirtualTable
          label={`Under ${name}`}
          heads={HEADS}
          rows={watches}
          keyOf={({ job }) => job.lit.entryId}
          cells={({ job: { id, ticket, watch, lit }, waits, roomFromUtc, readyUtc, lookNextUtc }) => (
            <>
              <TableCell component="th" scope="row">
                <Link to={`/jobs/${id}/cell`}>{ticket}</Link> {watch}
              </TableCell>
              <TableCell>{at(lit.sinceUtc)}</TableCell>
              <TableCell>
                {lit.stepsNormally === null ? 'not checked yet' : lit.stepsNormally ? 'normally' : 'not yet'}
              </TableCell>
              <TableCell>
                {waits
                  ? `waits: room ${roomFromUtc === null ? 'once another watch is removed' : `from ${at(roomFromUtc)}`}${readyUtc === null ? '' : `, ready ${at(readyUtc)}`}`
                  : (lit.amiss ??
                    `${at(lit.readyUtc)}, ${lit.readyLatestUtc === null ? 'or never' : `at the latest ${at(lit.readyLatestUtc)}`}`)}
              </TableCell>
              <TableCell>
                {lit.stepsNormally === true
                  ? 'once it is ready'
                  : waits
                    ? 'once it has room'
                    : at(lookNextUtc)}
              </TableCell>
            </>
          )}
        />
      )}
    </Paper>
  );
}

const placeWords = (place: LightPlaceTool): string => {
  const { lux, measuredAtMm, caseRiseK, litFrom } = place;
  return [
    `${figure(lux, 0)} lx ${measuredAtMm === null ? 'by daylight' : `at ${measuredAtMm} mm`}`,
    `${litWhen(place)}${litFrom === null ? '' : ' every day'}`,
    caseRiseK === null ? 'case warming not measured' : `warms a case by ${figure(caseRiseK, 0)} K there`,
  ].join(', ');
};

/** The lights of this shop: which watch lies where, since when, when it is ready and looked at again. */
export default function LightPage() {
  const { data: jobs } = useRack();
  const { data: shop } = useShop();
  const { book } = useBook(shop?.catalogueRevision);
  const nowUtc = useShopClock();
  if (jobs === undefined || !shop || !book || nowUtc === null) return <Loading what="the light places" />;
  const { zone } = shop.shop;
  const { places, toLookAt, ready, amiss } = lightRack(jobs, book.lightPlaces, nowUtc);
  const lineOf = (job: LitJob): string => `${job.ticket}, ${job.watch}.`;
  return (
    <StageLayout
      mat={
        <>
          <Typography variant="h1">Light places</Typography>
          {book.lightPlaces.length === 0 && (
            <Typography>
              No light place is entered yet. Open <Link to="/tools">Tools</Link> and add a light place. Enter
              its light in lux, how much it warms a case, and when it is lit.
            </Typography>
          )}
          {places.map(({ place, watches }) => (
            <Place key={place?.id ?? 'elsewhere'} place={place} watches={watches} zone={zone} />
          ))}
        </>
      }
      lamp={
        <>
          <LampAnswer
            question="To check now"
            tone={toLookAt.length > 0 ? 'care' : 'open'}
            answer={
              toLookAt.length > 0
                ? toLookAt.length === 1
                  ? '1 watch'
                  : `${toLookAt.length} watches`
                : places.some(({ watches }) => watches.length > 0)
                  ? 'None'
                  : 'No watch is under a light'
            }
            reasons={toLookAt.map(lineOf)}
          />
          {ready.length > 0 && (
            <LampAnswer
              question="Likely ready"
              tone="good"
              answer={`${ready.length}`}
              reasons={ready.map(lineOf)}
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
