import { Box, Button, LinearProgress, Paper, Stack, Typography } from '@mui/material';
import { Suspense } from 'react';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import { promiseWords } from '../../core/advice/dayplan';
import { capital } from '../../core/craft/judgement';
import { STAGE_WORDS, STAGES, type StageId } from '../../core/craft/policy';
import { watchName } from '../../core/logbook';
import { isNotFound, saidInWords } from '../api/http';
import { useBook } from '../api/book';
import { useJobResource, useShop, useStock } from '../api/resources';
import { useKey } from '../kit/keys/KeysProvider';
import { GO_ON } from '../job/BenchLayout';
import { Wick } from '../job/Wick';
import { stages } from '../stages/stages';
import { NoSuchPage } from './NoSuchPage';
import { Conflicts } from '../job/Conflicts';
import { History } from '../job/History';
import { JobProvider, useJob } from '../job/JobContext';
import { SkipStage } from '../job/SkipStage';
import { Undo } from '../job/Undo';

function StageKeys({ jobId }: { readonly jobId: string }) {
  return STAGES.map((stage, index) => (
    <StageKey key={stage} jobId={jobId} stage={stage} digit={String(index + 1)} />
  ));
}

function StageKey({
  jobId,
  stage,
  digit,
}: {
  readonly jobId: string;
  readonly stage: StageId;
  readonly digit: string;
}) {
  const navigate = useNavigate();
  useKey(digit, `Open ${STAGE_WORDS[stage]}`, () => void navigate(`/jobs/${jobId}/${stage}`));
  return null;
}

/** The way on: to the stage the job waits for, once this one asks for nothing more. */
function OnBar({ open }: { readonly open: StageId }) {
  const { state, resource } = useJob();
  const here = state.progress.find((stage) => stage.stage === open);
  const { current } = state;
  const finished = here !== undefined && here.missing.length === 0;
  const wayOn = current !== null && current !== open;
  return (
    <Stack
      direction="row"
      spacing={1}
      sx={{
        mt: 2,
        alignItems: 'center',
        flexWrap: 'wrap',
        rowGap: 1,
        // On a page longer than the screen the way on stands at its foot.
        ...(wayOn
          ? {
              position: 'sticky',
              bottom: 0,
              zIndex: 1,
              bgcolor: 'background.default',
              py: 1,
              borderTop: 1,
              borderColor: 'divider',
            }
          : {}),
      }}
    >
      {wayOn && (
        <Button
          component={Link}
          to={`/jobs/${resource.job.id}/${current}`}
          state={GO_ON}
          variant="contained"
          data-wanted={finished}
        >
          Continue: {STAGES.indexOf(current) + 1} {STAGE_WORDS[current]}
        </Button>
      )}
      {here !== undefined &&
        (here.status === 'current' || here.status === 'coming') &&
        open !== 'arrive' &&
        open !== 'handback' && <SkipStage stage={open} />}
      <Box sx={{ flexGrow: 1 }} />
      <Undo />
    </Stack>
  );
}

function Bench({ open }: { readonly open: StageId }) {
  const { state, resource, context, earlier } = useJob();
  const { facts } = state;
  const watch = facts.watch?.payload;
  const Stage = stages[open];
  return (
    <>
      <StageKeys jobId={resource.job.id} />
      <Stack direction="row" spacing={2} sx={{ alignItems: 'baseline', flexWrap: 'wrap' }}>
        <Typography variant="h1">
          <Typography component="span" variant="mark" sx={{ fontSize: '1.5rem' }}>
            {resource.job.ticket}
          </Typography>{' '}
          {capital(watchName(watch))}
        </Typography>
        <Typography color="text.secondary">
          {[
            resource.customer?.name ?? 'owner erased',
            facts.service?.payload.service,
            promiseWords(facts.promise?.payload.promisedAt ?? null, context.nowUtc, context.shop.zone),
          ]
            .filter(Boolean)
            .join(' · ')}
        </Typography>
      </Stack>
      {earlier !== null && earlier.visits.length > 0 && (
        <Typography>
          <Link to={`/watches/${resource.job.watchId}`}>
            This watch was here {earlier.visits.length === 1 ? 'once' : `${earlier.visits.length} times`}{' '}
            before
          </Link>
        </Typography>
      )}
      <Wick jobId={resource.job.id} progress={state.progress} open={open} />
      <Conflicts />
      <Box sx={{ mt: 2 }}>
        <Suspense fallback={<LinearProgress aria-label="Loading the stage" />}>
          <Stage key={`${resource.job.id}-${open}`} />
        </Suspense>
      </Box>
      <OnBar open={open} />
      <History />
    </>
  );
}

/** One job: its wick, the stage that is open, and its logbook. */
export default function JobPage() {
  const { jobId = '', stage } = useParams();
  const { data: resource, error } = useJobResource(jobId);
  const { data: shop } = useShop();
  const { book } = useBook(shop?.catalogueRevision);
  const { data: stock } = useStock();
  if (isNotFound(error) && !resource) return <NoSuchPage what="job" />;
  if (!resource || !shop || !book || !stock) {
    return error ? (
      <Paper sx={{ p: 2 }}>
        <Typography variant="h1">This job is not stored here</Typography>
        <Typography role="alert" sx={{ mt: 1 }}>
          {saidInWords(error) ??
            'The server is away and this browser has no copy of the job. It opens as soon as the server is back.'}
        </Typography>
      </Paper>
    ) : (
      <LinearProgress aria-label="Loading the job" />
    );
  }
  const open = STAGES.find((each) => each === stage);
  if (stage !== undefined && open === undefined) return <NoSuchPage what="stage" />;
  return (
    <JobProvider key={jobId} resource={resource} shop={shop} book={book} stock={stock}>
      {open === undefined ? <ToCurrent jobId={jobId} /> : <Bench open={open} />}
    </JobProvider>
  );
}

/** A job opened without naming a stage opens at the one it waits for. */
function ToCurrent({ jobId }: { readonly jobId: string }) {
  const { state } = useJob();
  return <Navigate to={`/jobs/${jobId}/${state.current ?? 'handback'}`} replace />;
}
