import { lifeRange, lifeWords } from '../../../core/craft/life';
import { Alert, Box, Button, Paper, Stack, Typography } from '@mui/material';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { capital } from '../../../core/craft/judgement';
import { handback, readyToHandBack } from '../../../core/advice/handback';
import { money } from '../../../core/craft/money';
import { elsewhereWords, type Statement } from '../../../core/logbook';
import { dayInWords, localTime } from '../../../core/craft/time';
import { Caution, LampAnswer } from '../../kit/Lamp';
import { WaxSeal } from '../../figures/WaxSeal';
import { factFields } from '../../kit/factFields';

import { focusNextRequired, focusRequired } from '../../kit/keys/required';
import { DeviceButton } from '../../kit/DeviceButton';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { SavedFile } from '../../job/SavedFile';
import { OptionalFacts } from '../../job/OptionalFacts';
import { BenchLayout } from '../../job/BenchLayout';

const handbackPrice = factFields('handback.price');
const handbackCollected = factFields('handback.collected');

function useHandback() {
  const { state, lots, context } = useJob();
  return useMemo(() => handback(state, lots, context), [state, lots, context]);
}

const SECTIONS: readonly {
  readonly key: 'found' | 'done' | 'fitted' | 'tested' | 'notDone';
  readonly title: string;
}[] = [
  { key: 'found', title: 'Found' },
  { key: 'done', title: 'Done' },
  { key: 'fitted', title: 'Fitted' },
  { key: 'tested', title: 'Tested' },
  { key: 'notDone', title: 'Not done' },
];

function Slip({ statement, currency }: { readonly statement: Statement; readonly currency: string }) {
  return (
    <Box
      sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '110px 1fr' }, columnGap: 2, rowGap: 1 }}
    >
      {SECTIONS.filter(({ key }) => statement[key].length > 0).map(({ key, title }) => (
        <Box key={key} sx={{ display: 'contents' }}>
          <Typography sx={{ fontWeight: 700 }}>{title}</Typography>
          <Typography>{statement[key].map(capital).join(' ')}</Typography>
        </Box>
      ))}
      {(
        [
          ['Water', statement.water],
          ['Next visit', statement.nextVisit],
          ['Warranty', statement.warranty],
          ['Price', money(statement.priceMinor, currency)],
        ] as const
      ).map(([title, text]) => (
        <Box key={title} sx={{ display: 'contents' }}>
          <Typography sx={{ fontWeight: 700 }}>{title}</Typography>
          <Typography>{text}</Typography>
        </Box>
      ))}
    </Box>
  );
}

function SignPart() {
  const { state, technician, context, record, waiting } = useJob();
  const result = useHandback();
  const unsaved = waiting.filter((each) => each.refused === null);
  const { signature } = state;
  const [signedHere, setSigned] = useState(false);
  const onRecord = signature.state === 'signed' && signature.entry.sequence !== null;
  const ready = result.verdict === 'ready to sign' && unsaved.length === 0;
  useEffect(() => {
    // The last entries may be saved only after the stage was opened; a hand that is elsewhere stays there.
    if (ready && document.activeElement === document.body) focusNextRequired();
  }, [ready]);
  useEffect(() => {
    // Only a signature on record opens the way to handing over.
    if (signedHere && onRecord) focusRequired();
  }, [signedHere, onRecord]);
  if (signature.state === 'signed') {
    const { payload, occurredAt } = signature.entry;
    return (
      <Stack direction="row" spacing={2} sx={{ alignItems: 'center' }}>
        <WaxSeal initials={payload.initials} />
        <Typography>
          Signed {[payload.initials, elsewhereWords(signature.entry)].filter(Boolean).join(' ')},{' '}
          {localTime(occurredAt, context.shop.zone)}
          {signature.entry.sequence === null ? ', waiting to be saved' : ''}
        </Typography>
      </Stack>
    );
  }
  const sign = (): void => {
    setSigned(true);
    void record('handback.signed', {
      initials: technician?.initials ?? '',
      catalogueRevision: context.catalogue.revision,
      policyRevision: context.policy.revision,
      restsOnSequence: state.lastSequence,
      statement: result.statement,
    });
  };
  return (
    <Stack spacing={1.5}>
      {signature.state === 'reopened' && (
        <Alert severity="warning">
          Signed{' '}
          {[signature.entry.payload.initials, elsewhereWords(signature.entry)].filter(Boolean).join(' ')},{' '}
          {localTime(signature.entry.occurredAt, context.shop.zone)}. A later record reopened the job. The
          record given then stays as it was. Sign again to issue a new one.
        </Alert>
      )}
      {result.reasons.map((reason) => (
        <Typography key={reason}>■ {reason}</Typography>
      ))}
      {unsaved.length > 0 && <Typography>■ {unsaved.length} entries are not saved yet.</Typography>}
      <Button
        variant="contained"
        size="large"
        disabled={!ready || technician === null}
        data-wanted={ready}
        onClick={sign}
        sx={{ alignSelf: 'flex-start' }}
      >
        Sign as {technician?.initials ?? '…'}
      </Button>
    </Stack>
  );
}

function Papers({ hasNextVisit }: { readonly hasNextVisit: boolean }) {
  const { state, resource, technician } = useJob();
  const { signature } = state;
  const papers = `/api/jobs/${resource.job.id}`;
  return (
    <Paper component="section" aria-label="Papers" sx={{ p: 2 }}>
      <Stack direction="row" spacing={1} sx={{ flexWrap: 'wrap', rowGap: 1 }}>
        <Button variant="outlined" href={`${papers}/record.pdf`} target="_blank">
          Record (PDF)
        </Button>
        <SavedFile href={`${papers}/job.json`} label="Whole job (JSON)" outlined />
        {hasNextVisit && (
          <Button variant="outlined" href={`${papers}/next-visit.ics`}>
            Next visit (calendar)
          </Button>
        )}
        {resource.customer && (
          <DeviceButton
            device="message-outbox"
            does="tell the owner"
            ask={
              technician && {
                ask: 'tell the owner',
                jobId: resource.job.id,
                technicianId: technician.id,
                what: signature.state === 'signed' ? 'ready' : 'please ring',
              }
            }
          >
            {signature.state === 'signed' ? 'Tell the owner it is ready' : 'Ask the owner to call'}
          </DeviceButton>
        )}
      </Stack>
    </Paper>
  );
}

function Mat() {
  const { state, context } = useJob();
  const result = useHandback();
  const { facts, signature } = state;
  const statement = signature.state === 'signed' ? signature.entry.payload.statement : result.statement;
  return (
    <>
      {signature.state !== 'signed' && (
        <OptionalFacts
          facts={[
            {
              title: 'Change price',
              shown: facts.price !== null,
              card: (
                <FactCard
                  kind="handback.price"
                  title="Change price"
                  recorded={facts.price}
                  defaults={{ priceMinor: result.price.priceMinor, reason: '' }}
                >
                  <handbackPrice.MoneyField name="priceMinor" currency={context.policy.currency} />
                  <handbackPrice.TextLine name="reason" helper="e.g. comeback, no charge" />
                </FactCard>
              ),
            },
          ]}
        />
      )}
      {signature.state === 'signed' && signature.entry.sequence !== null && (
        <FactCard
          kind="handback.collected"
          title="Handed over and paid"
          recorded={facts.collected}
          defaults={{ by: '', paidMinor: null }}
          action="Handed over"
        >
          <handbackCollected.TextLine name="by" wanted helper="e.g. the owner or their partner, no names" />
          <handbackCollected.MoneyField name="paidMinor" currency={context.policy.currency} />
        </FactCard>
      )}
      <Paper component="section" aria-label="Signature" sx={{ p: 2 }}>
        <SignPart />
      </Paper>
      <Paper component="section" aria-label="Record for the owner" sx={{ p: 2 }}>
        <Typography variant="h2" sx={{ mb: 1.5 }}>
          {signature.state === 'signed' ? 'Record as given' : 'Record as it stands now'}
        </Typography>
        <Slip statement={statement} currency={context.policy.currency} />
      </Paper>
      <Papers hasNextVisit={statement.nextVisitOn !== null} />
    </>
  );
}

function Lamp() {
  const { state, context, resource } = useJob();
  const { follows } = resource.job;
  const result = useHandback();
  const { next, water } = result;
  const signed = state.signature.state === 'signed';
  const ready = readyToHandBack(state, result);
  const unproved =
    !signed &&
    !state.facts.proving?.ended &&
    state.facts.closed !== null &&
    context.policy.provingRunHours > 0;
  const life = next.forecasts.find(({ life: each }) => each.verdict === 'forecast')?.life;
  return (
    <>
      <LampAnswer
        question="Ready to hand back?"
        tone={ready.isGood ? 'good' : 'care'}
        answer={ready.answer}
        reasons={ready.reasons}
      />
      {follows && (
        <LampAnswer
          question={follows.why === 'comeback' ? 'A comeback of' : 'Follows, closed interim,'}
          tone="care"
          answer={<Link to={`/jobs/${follows.jobId}`}>{follows.ticket}</Link>}
          reasons={follows.why === 'comeback' ? ['If our work failed, there is no charge.'] : []}
        />
      )}
      {unproved && (
        <Caution>
          No proving run was made. A fault that comes and goes would only show at the owner’s.
        </Caution>
      )}
      <LampAnswer
        question="Next visit"
        shown={1}
        working={result.working}
        tone={next.onDay ? 'good' : 'open'}
        answer={next.onDay ? dayInWords(next.onDay) : 'Cannot be calculated'}
        reasons={
          life?.verdict === 'forecast'
            ? [
                `The cell should last ${lifeRange(life)}, most likely ${lifeWords(life.p50Months)}.`,
                ...life.reasons,
              ]
            : [next.words]
        }
      />
      <LampAnswer
        question="Water"
        tone={water.verdict === 'tested' ? 'good' : water.verdict === 'not tested' ? 'open' : 'no'}
        answer={capital(water.verdict)}
        reasons={water.reasons.map(capital)}
      />
      {water.verdict === 'not tested' && (state.facts.watch?.payload.ratingBar ?? 0) > 0 && (
        <Caution>
          The case says {state.facts.watch?.payload.ratingBar} bar, valid when new. Tell the owner that it was
          not tested today.
        </Caution>
      )}
      <Typography variant="body2" color="text.secondary">
        Based on book revision {context.catalogue.revision} and policy revision {context.policy.revision}.
      </Typography>
    </>
  );
}

export default function HandbackStage() {
  return <BenchLayout mat={<Mat />} lamp={<Lamp />} />;
}
