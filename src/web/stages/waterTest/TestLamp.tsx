import { Box, Button, Stack, Typography } from '@mui/material';
import { flowInWords } from '../../../core/advice/leaks';
import { leakPlace, stepPassed } from '../../../core/advice/tightness';
import { crownOf } from '../../../core/logbook';
import { capital, figure } from '../../../core/craft/judgement';
import {
  type Flow,
  flowFigure,
  type LeakJudgement,
  type LeakTestPlan,
  LIMIT_UG_PER_MIN,
  type PlannedStep,
  pressureWords,
} from '../../../core/craft/tightness';
import { Fold } from '../../kit/Fold';
import { Caution, LampAnswer, type LampTone, Working } from '../../kit/Lamp';
import { colours } from '../../kit/theme';
import { useJob } from '../../job/JobContext';
import { PlacesFigure } from './Places';
import { useTesting } from './useTesting';

const STANDING: Readonly<Record<LeakJudgement['verdict'], LampTone>> = {
  tight: 'good',
  leaks: 'no',
  'not yet known': 'care',
  'no verdict': 'care',
};

/** Where a flow stands beside the limit, on a scale of powers of ten. */
function FlowGauge({ flow }: { readonly flow: Flow }) {
  const [least, most] = [0.5, 5000];
  const at = (value: number): number =>
    (100 * Math.log(Math.min(most, Math.max(least, value)) / least)) / Math.log(most / least);
  const [from, to, limit] = [at(flow.from), at(flow.to), at(LIMIT_UG_PER_MIN)];
  return (
    <Box
      role="img"
      aria-label={`${flowFigure(flow.from)} to ${Number.isFinite(flow.to) ? flowFigure(flow.to) : 'any'} µg a minute, limit ${LIMIT_UG_PER_MIN}`}
      sx={{ my: 0.75 }}
    >
      <svg viewBox="0 0 100 17" width="100%" aria-hidden>
        <rect x="0" y="3" width={limit} height="6" fill={colours.verdigris} opacity="0.25" />
        <rect x={limit} y="3" width={100 - limit} height="6" fill={colours.cinnabar} opacity="0.25" />
        <line x1={limit} y1="1" x2={limit} y2="11" stroke={colours.soot} strokeWidth="0.8" />
        <rect x={from} y="4.5" width={Math.max(0.8, to - from)} height="3" fill={colours.ink} />
        <text x={limit} y="16" fontSize="4.6" textAnchor="middle" fill={colours.soot}>
          {LIMIT_UG_PER_MIN}
        </text>
        <text x="0" y="16" fontSize="4.6" fill={colours.soot}>
          0.5
        </text>
        <text x="100" y="16" fontSize="4.6" textAnchor="end" fill={colours.soot}>
          5000 µg/min
        </text>
      </svg>
    </Box>
  );
}

/** What the record on the form shows, before it is recorded. */
function OnTheForm() {
  const { onForm, shows: shown, usualUmPerBar } = useTesting();
  if (onForm === null) return null;
  const shows = shown.judgement;
  if (shown.broke)
    return (
      <LampAnswer
        question="Result of this record"
        tone="open"
        answer="No result"
        reasons={['The leak rate could not be calculated. The figures you entered are still in the form.']}
      >
        <Button onClick={shown.again}>Calculate again</Button>
      </LampAnswer>
    );
  if (shows === null)
    return <LampAnswer question="Result of this record" tone="open" answer="Calculating …" />;
  return (
    <>
      <LampAnswer
        question="Result of this record"
        tone={STANDING[shows.verdict]}
        answer={capital(shows.verdict)}
        reasons={shows.reasons}
      >
        {shows.flow && <FlowGauge flow={shows.flow} />}
        {shows.flowAtTest && (
          <Typography variant="body2">
            At {pressureWords(shows.atBar)}: {flowInWords(shows.flowAtTest)}.
          </Typography>
        )}
        {shows.stiffnessUmPerBar !== null && (
          <Typography variant="body2">
            Case deflection {figure(Math.abs(shows.stiffnessUmPerBar))} µm a bar;{' '}
            {usualUmPerBar === null ? 'no earlier measurement' : `before ${figure(usualUmPerBar)}`}.
          </Typography>
        )}
        {shows.settles.map(({ what, words }) => (
          <Typography key={what} sx={{ mt: 0.5 }}>
            → {words}
          </Typography>
        ))}
      </LampAnswer>
      <Working lines={shows.working} />
    </>
  );
}

function Step({ step, number }: { readonly step: PlannedStep; readonly number: number }) {
  const { take, tests, notYet } = useTesting();
  const done = stepPassed(step, tests);
  const name = `${step.method}${step.overBar === null ? '' : `, ${pressureWords(step.overBar)}`}`;
  return (
    <Box component="li" sx={{ borderTop: `1px solid ${colours.thread}`, py: 0.5 }}>
      <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between' }}>
        <Typography sx={{ fontWeight: 700 }}>
          {number}. {capital(name)}, {figure(step.seconds)} s{done ? ' · passed' : ''}
        </Typography>
        {notYet === null && (
          <Button aria-label={`Take into the form: ${name}`} onClick={() => take(step)} sx={{ minWidth: 0 }}>
            Take
          </Button>
        )}
      </Stack>
      <Fold summary="Method and result" sx={{ fontWeight: 400 }}>
        {step.inOtherUnits && <Typography variant="body2">{step.inOtherUnits}</Typography>}
        <Typography variant="body2">{step.words}</Typography>
        <Typography variant="body2">Passed: {step.ifPassed}</Typography>
        <Typography variant="body2">Failed: {step.ifFailed}</Typography>
      </Fold>
    </Box>
  );
}

const STANDING_OF_PLAN: Readonly<Record<LeakTestPlan['verdict'], LampTone>> = {
  test: 'good',
  'test gently': 'care',
  'do not test': 'no',
  'cannot say': 'open',
};

function Plan() {
  const { plan, tests } = useTesting();
  return (
    <>
      <LampAnswer
        question="Test plan"
        tone={STANDING_OF_PLAN[plan.verdict]}
        answer={capital(plan.verdict)}
        reasons={plan.reasons}
        shown={1}
        working={plan.working}
        folded={tests.length > 0}
      >
        <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0, mt: 0.5 }}>
          {plan.steps.map((step, index) => (
            <Step key={`${step.method} ${step.overBar}`} step={step} number={index + 1} />
          ))}
        </Box>
      </LampAnswer>
    </>
  );
}

export function TestLamp() {
  const { state } = useJob();
  const { water, plan, tests } = useTesting();
  const leak = water.tests.findLast(({ stands, test }) => stands && test.payload.places.length > 0)?.test;
  const places = leak?.payload.places ?? [];
  const looks = places.map((mark) => leakPlace(mark, state));
  const screwed = crownOf(state) === 'screwed down';
  return (
    <>
      {plan.cautions.map((caution, index) => (
        <Caution key={caution} grave={screwed && index === 0}>
          {caution}
        </Caution>
      ))}
      <OnTheForm />
      {tests.length === 0 && <Plan />}
      <LampAnswer
        question="Water resistance"
        tone={water.verdict === 'tested' ? 'good' : water.verdict === 'not tested' ? 'open' : 'no'}
        answer={capital(water.verdict)}
        reasons={[water.statement, ...water.reasons].map(capital)}
        shown={1}
        working={water.working}
        folded={tests.length === 0}
      />
      {looks.length > 0 && (
        <LampAnswer
          question="It leaked at"
          tone="no"
          answer={looks.map(({ where }) => where).join('; ')}
          reasons={[...new Set(looks.map(({ look }) => look))]}
        >
          <PlacesFigure places={places} label="leak" size={92} />
        </LampAnswer>
      )}
      {tests.length > 0 && <Plan />}
    </>
  );
}
