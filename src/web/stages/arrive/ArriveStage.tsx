import { capital } from '../../../core/craft/judgement';
import { Box, Button, Paper, Stack, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { isForLicensed } from '../../../core/craft/gaskets';
import { money } from '../../../core/craft/money';
import { priceOf } from '../../../core/advice/price';
import {
  type Need,
  needsInWords,
  type ReadyToOpen,
  readyToOpen,
  worstOf,
  promiseFor,
} from '../../../core/advice/arrival';
import { awaitedParts } from '../../../core/logbook';
import { REQUIREMENTS, SERVICES, STAGE_WORDS, STAGES } from '../../../core/craft/policy';
import { dayInWords, localTime } from '../../../core/craft/time';
import { Caution, LampAnswer, type LampTone } from '../../kit/Lamp';
import { factFields } from '../../kit/factFields';
import { optionsOf } from '../../kit/fields';
import { DeviceButton } from '../../kit/DeviceButton';
import { FactCard } from '../../job/FactCard';
import { OptionalFacts } from '../../job/OptionalFacts';
import { useJob } from '../../job/JobContext';
import { SavedFile } from '../../job/SavedFile';
import { BenchLayout } from '../../job/BenchLayout';
import { useOptionalOfArrival } from './optional';
import { useNeeds } from './optionalCards';
import { PromiseField } from './PromiseField';
import { ComplaintFields, PriceOfService, RiskFields, WatchFields } from './fields';

const arriveService = factFields('arrive.service');
const arriveConsent = factFields('arrive.consent');

/** The jobs this one is tied to: what it follows, what follows it, and the other watches of the visit. */
function Linked() {
  const { resource } = useJob();
  const { cameAs, follows, followedBy, sameVisit, visitId } = resource.job;
  const line = (jobId: string, ticket: string, words: string): ReactNode => (
    <Typography key={jobId}>
      <Link to={`/jobs/${jobId}`}>{ticket}</Link> {words}
    </Typography>
  );
  return (
    <Paper component="section" aria-label="Visit" sx={{ px: 2, py: 1 }}>
      {cameAs !== null && <Typography>Imported from another counter, where it was {cameAs}.</Typography>}
      {follows &&
        line(
          follows.jobId,
          follows.ticket,
          `is the earlier job. This one follows it because of ${follows.why}.`,
        )}
      {followedBy.map((later) =>
        line(later.jobId, later.ticket, `follows this job because of ${later.why}.`),
      )}
      {sameVisit.map((other) => line(other.jobId, other.ticket, `${other.watch}, of the same visit.`))}
      <Stack direction="row" spacing={1} sx={{ flexWrap: 'wrap', rowGap: 1 }}>
        {resource.customer && (
          <Button component={Link} to={`/new?with=${resource.job.id}`}>
            Add another watch of this visit
          </Button>
        )}
        <Button href={`/api/visits/${visitId}/receipt.pdf`} target="_blank">
          Print receipt
        </Button>
        <SavedFile href={`/api/visits/${visitId}/visit.json`} label="Whole visit (JSON)" />
      </Stack>
    </Paper>
  );
}

function TicketCard() {
  const { resource, technician } = useJob();
  return (
    <Paper component="section" aria-label="Ticket and label" sx={{ p: 2 }}>
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={3} sx={{ alignItems: { sm: 'center' } }}>
        <Box sx={{ flexGrow: 1 }}>
          <Typography variant="mark" component="p" sx={{ fontSize: '2.2rem', whiteSpace: 'nowrap' }}>
            {resource.job.ticket}
          </Typography>
          <Typography>
            {resource.customer ? (
              <>
                <Link to={`/customers/${resource.customer.id}`}>{resource.customer.name}</Link>,{' '}
                {resource.customer.phone || 'no phone'}
              </>
            ) : (
              'The owner was erased'
            )}
          </Typography>
          <Stack direction="row" spacing={1} sx={{ mt: 1, flexWrap: 'wrap', rowGap: 1 }}>
            <Button href={`/api/jobs/${resource.job.id}/label.pdf`} target="_blank" variant="outlined">
              Label (PDF)
            </Button>
            <DeviceButton
              device="label-printer"
              does="print label"
              ask={technician && { ask: 'print label', jobId: resource.job.id, technicianId: technician.id }}
            >
              Print the label
            </DeviceButton>
          </Stack>
        </Box>
        <Box
          component="img"
          src={`/api/jobs/${resource.job.id}/label/bars.svg`}
          alt={`Barcode of ticket ${resource.job.ticket}`}
          sx={{ height: 72, maxWidth: 230 }}
        />
        <Box
          component="img"
          src={`/api/jobs/${resource.job.id}/label/qr.svg`}
          alt={`QR code of ticket ${resource.job.ticket}`}
          sx={{ height: 104, width: 104 }}
        />
      </Stack>
    </Paper>
  );
}

function PromiseCard() {
  const { state, context } = useJob();
  const { facts } = state;
  return (
    <FactCard
      kind="arrive.promise"
      title="Promise"
      recorded={facts.promise}
      summary={
        facts.promise
          ? `Promised for ${localTime(facts.promise.payload.promisedAt, context.shop.zone)}`
          : undefined
      }
      defaults={{
        promisedAt: promiseFor(facts.service?.payload.service ?? null, state.calibre, context),
      }}
    >
      <PromiseField
        name="promisedAt"
        zone={context.shop.zone}
        nowUtc={context.nowUtc}
        hours={context.policy.hours}
      />
    </FactCard>
  );
}

function Mat() {
  const { state, context } = useJob();
  const { facts } = state;
  const more = useOptionalOfArrival();
  return (
    <>
      <TicketCard />
      <FactCard
        kind="arrive.watch"
        title="The watch"
        recorded={facts.watch}
        defaults={{ maker: '', reference: '', serial: '', engraved: '', ratingBar: null, crownClock: null }}
      >
        <WatchFields />
      </FactCard>
      <FactCard
        kind="arrive.complaint"
        title="Complaint"
        recorded={facts.complaint}
        defaults={{ picked: [], words: '' }}
      >
        <ComplaintFields />
      </FactCard>
      <FactCard
        kind="arrive.service"
        title="Service"
        recorded={facts.service}
        defaults={{ service: 'cell only', priceMinor: context.policy.services['cell only'].priceMinor }}
      >
        <arriveService.Choice name="service" options={optionsOf(SERVICES)} />
        <PriceOfService policy={context.policy} />
      </FactCard>
      <PromiseCard />
      <FactCard
        kind="arrive.consent"
        title="Consent"
        recorded={facts.consent}
        defaults={{ risks: [], given: null }}
      >
        <RiskFields />
        <arriveConsent.YesNo name="given" yes="Agrees to the risks" no="Does not agree" />
      </FactCard>
      <OptionalFacts facts={more} />
      <Linked />
    </>
  );
}

const NEEDS_STANDING: Readonly<Record<Need['status'], LampTone>> = {
  available: 'good',
  'not needed': 'good',
  'not known yet': 'open',
  'not available': 'care',
};

const READY: Readonly<Record<ReadyToOpen['verdict'], { readonly tone: LampTone; readonly answer: string }>> =
  {
    ready: { tone: 'good', answer: 'Ready' },
    'not yet': { tone: 'open', answer: 'Not yet' },
    'no consent': { tone: 'no', answer: 'Not without consent' },
    'not here': { tone: 'care', answer: 'Not here' },
  };

function ArrivalCautions() {
  const { facts } = useJob().state;
  const rating = facts.watch?.payload.ratingBar ?? null;
  return (
    <>
      {facts.originality?.payload.matters && (
        <Caution>
          Originality matters to the owner. Clean and repair before replacing. Ask before changing any part.
        </Caution>
      )}
      {facts.marks
        .filter((mark) => mark.payload.kind === 'original film')
        .map((mark) => (
          <Caution key={mark.id}>
            Original film: {mark.payload.film === 'remove' ? 'the owner wants it removed.' : 'it stays on.'}
          </Caution>
        ))}
      {rating !== null && isForLicensed(rating) && (
        <Caution>
          Rated {rating} bar: send a certified watch to a licensed workshop. Opening it here ends the rating.
        </Caution>
      )}
    </>
  );
}

/** What the service asks for at each stage, and what the book knows of the case. */
function WhatIsAsked() {
  const { state } = useJob();
  const service = state.facts.service?.payload.service;
  const asked = state.required;
  return (
    <>
      {service && (
        <LampAnswer
          question={`“${service}” asks for`}
          folded
          tone="good"
          answer={`${asked.length} facts`}
          reasons={STAGES.flatMap((stage) => {
            const own = asked.filter((requirement) => REQUIREMENTS[requirement].stage === stage);
            return own.length === 0 || stage === 'arrive'
              ? []
              : [
                  `${STAGE_WORDS[stage]}: ${own.map((requirement) => REQUIREMENTS[requirement].words).join(', ')}`,
                ];
          })}
        />
      )}
      {state.caseType && (
        <LampAnswer
          question="Case in the book"
          folded
          tone="good"
          answer={state.caseType.code}
          reasons={[
            `Back: ${state.caseType.backKind}.`,
            ...(state.caseType.gasket ? [`Gasket: ${state.caseType.gasket} mm.`] : []),
          ]}
        />
      )}
    </>
  );
}

function Lamp() {
  const { state, context } = useJob();
  const { facts } = state;
  const price = priceOf(state, context.policy.currency);
  const awaited = awaitedParts(facts)?.payload;
  const needs = useNeeds();
  const lacking = needs.filter(({ status }) => NEEDS_STANDING[status] !== 'good');
  const ready = readyToOpen(state, needs);
  const { tone, answer } = READY[ready.verdict];
  return (
    <>
      <LampAnswer question="Ready to open?" tone={tone} answer={answer} reasons={ready.reasons} />
      {needs.length > 0 && (
        <LampAnswer
          question="Equipment for this job"
          folded={NEEDS_STANDING[worstOf(needs)] === 'good'}
          // What is there is behind *Why*: what lacks must not be.
          shown={lacking.length}
          tone={NEEDS_STANDING[worstOf(needs)]}
          answer={needsInWords(needs)}
          reasons={[...lacking, ...needs.filter((need) => !lacking.includes(need))].map(
            (need) => `${capital(need.of)}: ${need.words} · ${need.status}.`,
          )}
        />
      )}
      {awaited && (
        <LampAnswer
          question="Waits for parts"
          tone="care"
          answer={awaited.expectedOn === null ? 'no date given' : dayInWords(awaited.expectedOn)}
          reasons={awaited.lines.map((line) => `${line.count} × ${line.what}`)}
        />
      )}
      {facts.service && (
        <LampAnswer
          question="Price"
          folded={price.verdict === 'as agreed'}
          tone={price.verdict === 'as agreed' ? 'good' : 'no'}
          answer={money(price.priceMinor, context.policy.currency)}
          reasons={price.reasons}
        />
      )}
      <ArrivalCautions />
      {facts.promise && (
        <LampAnswer
          question="Promised for"
          folded
          tone="good"
          answer={localTime(facts.promise.payload.promisedAt, context.shop.zone)}
        />
      )}
      <WhatIsAsked />
    </>
  );
}

export default function ArriveStage() {
  return <BenchLayout mat={<Mat />} lamp={<Lamp />} />;
}
