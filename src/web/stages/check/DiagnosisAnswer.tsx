import { Box, Button, LinearProgress, Stack, Typography } from '@mui/material';
import { useState } from 'react';
import { isLoupeTest, loupeRecord, testAnswers, type TestRecord } from '../../../core/advice/health';
import { money } from '../../../core/craft/money';
import {
  type Diagnosis,
  type FaultChance,
  type NextTest,
  type PricedRemedy,
  type SignOfFault,
  SIGNS_OF_FAULT,
} from '../../../core/craft/health';
import { capital, percent } from '../../../core/craft/judgement';
import { useJob } from '../../job/JobContext';
import { Answers } from '../../kit/Answers';
import { LampAnswer, type LampTone } from '../../kit/Lamp';
import { SeveralOf } from '../../kit/choiceFields';
import { ReadingCard } from './ReadingCard';
import { type Diagnosed, readInLamp, useDiagnoses } from './askedTest';

const STANDING: Readonly<Record<Diagnosis['verdict'], LampTone>> = {
  found: 'no',
  'nothing wrong': 'good',
  'wait longer': 'care',
  'cannot tell yet': 'open',
};

/** Causes shown with their bars, and the evidence for and against each. */
const CAUSES_SHOWN = 4;
/** Of them those that stand at once. */
const CAUSES_AT_ONCE = 2;
const SENTENCES_SHOWN = 3;

function priceWords({ priced, priceMinor }: PricedRemedy, currency: string): string {
  if (priced === null) return 'within the service';
  return priceMinor === null ? 'not in the price list' : money(priceMinor, currency);
}

/** What speaks for a cause, and what against it. */
function Evidence({ cause: { fault, probability, evidence } }: { readonly cause: FaultChance }) {
  const said = (speaksFor: boolean): string =>
    evidence
      .filter(({ bits }) => bits > 0 === speaksFor)
      .slice(0, SENTENCES_SHOWN)
      .map(({ words }) => words)
      .join('; ');
  const [supports, contradicts] = [said(true), said(false)];
  return (
    <Box sx={{ mt: 0.75 }}>
      <Typography variant="body2" sx={{ fontWeight: 700 }}>
        {capital(fault)}, {percent(probability)}
      </Typography>
      {supports !== '' && <Typography variant="body2">For it: {supports}.</Typography>}
      {contradicts !== '' && <Typography variant="body2">Against it: {contradicts}.</Typography>}
    </Box>
  );
}

/** One cause as a bar. */
function Cause({ cause: { fault, probability } }: { readonly cause: FaultChance }) {
  return (
    <Box component="li" sx={{ mt: 0.5 }}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', columnGap: 1 }}>
        <Typography variant="body2" sx={{ fontWeight: 700 }}>
          {capital(fault)}
        </Typography>
        <Typography variant="body2" noWrap sx={{ flexShrink: 0 }}>
          {percent(probability)}
        </Typography>
      </Stack>
      <LinearProgress
        variant="determinate"
        value={probability * 100}
        aria-label={`${capital(fault)}: ${percent(probability)}`}
        sx={{ height: 8, borderRadius: 1 }}
      />
    </Box>
  );
}

/** The look with the loupe: every sign that is there, or none of them. */
function Loupe({ onSeen }: { readonly onSeen: (signs: readonly SignOfFault[]) => void }) {
  const { technician } = useJob();
  const [signs, setSigns] = useState<readonly SignOfFault[]>([]);
  return (
    <Stack spacing={0.5}>
      <SeveralOf
        label="Seen with the loupe"
        options={SIGNS_OF_FAULT.map((sign) => ({ value: sign, label: capital(sign) }))}
        picked={signs}
        onPick={(picked) => setSigns(picked as readonly SignOfFault[])}
      />
      <Button
        variant="outlined"
        disabled={technician === null}
        onClick={() => onSeen(signs)}
        sx={{ alignSelf: 'flex-start' }}
      >
        {signs.length === 0 ? 'Examined: none of these' : 'Examined: these'}
      </Button>
    </Stack>
  );
}

/** The test that tells the first two causes apart, answered where it is asked. */
function NextTestAnswer({
  test,
  well,
  keyed,
}: {
  readonly test: NextTest;
  readonly well: string | null;
  readonly keyed: boolean;
}) {
  const { state, record, technician } = useJob();
  const { hold } = useDiagnoses();
  const measure = readInLamp(state, test);
  const answers = testAnswers(state, test);
  const say = ({ kind, payload, supersedes }: TestRecord): void => {
    if (kind === 'check.looked') void record(kind, payload, { supersedes });
    else void record(kind, payload, { supersedes });
  };
  const at = well === null ? null : (state.wells.find(({ name }) => name === well) ?? null);
  return (
    <LampAnswer
      question={`Next check: separates ${test.between[0]} from ${test.between[1]}`}
      tone="open"
      answer={capital(test.words)}
    >
      {answers.length === 0 &&
        test.outcomes.slice(0, 4).map(({ shows, speaksFor }) => (
          <Typography key={shows} variant="body2">
            If {shows}: {speaksFor}.
          </Typography>
        ))}
      {measure !== null && (
        <Box sx={{ mt: 1 }} onFocus={() => hold(well, test)}>
          <ReadingCard measure={measure} well={at} />
        </Box>
      )}
      {isLoupeTest(test) && <Loupe onSeen={(signs) => say(loupeRecord(state, signs))} />}
      {answers.length > 0 && (
        <Answers
          of={capital(test.words)}
          keyed={keyed}
          disabled={technician === null}
          choices={answers.map((answer) => ({
            label: capital(answer.shows),
            means: `points to: ${answer.speaksFor}`,
            onPick: () => say(answer.record),
          }))}
        />
      )}
    </LampAnswer>
  );
}

/** What ails it: the causes with their chances, the test that tells the first two apart, and what to do. */
export function DiagnosisAnswer({
  diagnosed: { well, diagnosis, asked },
  keyed,
  currency,
}: {
  /** Of several tests asked for at once the first alone has keys. */
  readonly keyed: boolean;
  readonly diagnosed: Diagnosed;
  readonly currency: string;
}) {
  const { verdict, causes, ranked, remedies, reasons } = diagnosis;
  const [first, ...rest] = remedies;
  return (
    <>
      <LampAnswer
        question={`Diagnosis${well === null ? '' : ` for the cell of ${well}`}`}
        tone={STANDING[verdict]}
        answer={verdict === 'found' ? capital(causes.join(' and ')) : capital(verdict)}
        reasons={reasons}
        working={diagnosis.working}
      >
        {ranked.length > 0 && (
          <Box
            component="ol"
            aria-label="Causes by probability"
            sx={{ listStyle: 'none', p: 0, m: 0, mt: 0.5 }}
          >
            {ranked.slice(0, CAUSES_AT_ONCE).map((cause) => (
              <Cause key={cause.fault} cause={cause} />
            ))}
          </Box>
        )}
        {ranked.length > 0 && (
          <Box component="details" sx={{ '& > summary': { cursor: 'pointer', fontWeight: 700, py: 0.25 } }}>
            <summary>Evidence and further causes</summary>
            {ranked.slice(0, CAUSES_SHOWN).map((cause) => (
              <Evidence key={cause.fault} cause={cause} />
            ))}
          </Box>
        )}
      </LampAnswer>
      {asked && <NextTestAnswer key={asked.observable} test={asked} well={well} keyed={keyed} />}
      {first && (
        <LampAnswer
          question="What to do, gentlest first"
          folded={asked !== null}
          tone="care"
          answer={capital(first.what)}
          reasons={[`${capital(priceWords(first, currency))}. ${first.risk}`]}
        >
          {rest.map((remedy) => (
            <Typography key={remedy.what} variant="body2" sx={{ mt: 0.5 }}>
              Otherwise {remedy.what}: {priceWords(remedy, currency)}. {remedy.risk}
            </Typography>
          ))}
        </LampAnswer>
      )}
    </>
  );
}
