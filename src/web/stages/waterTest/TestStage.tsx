import { LEAK_TRENDS_AT_LEAST, LeakTrend } from '../../job/LeakTrend';
import { crownOf } from '../../../core/logbook';
import { BenchLayout } from '../../job/BenchLayout';
import { CrownCard } from '../../job/CrownCard';
import { useJob } from '../../job/JobContext';
import { OptionalFacts } from '../../job/OptionalFacts';
import { BlankCard, CaseSizeCard, FindingCard } from './Beside';
import { TestForm } from './TestForm';
import { TestLamp } from './TestLamp';
import { TestsMade } from './TestsMade';
import { TestingProvider } from './useTesting';

function Mat() {
  const { facts } = useJob().state;
  const crown = crownOf(useJob().state);
  return (
    <>
      <CrownCard wanted={crown === null} />
      <TestForm />
      <FindingCard />
      <TestsMade />
      <OptionalFacts
        facts={[
          { title: 'Free volume of the case', shown: facts.caseSize !== null, card: <CaseSizeCard /> },
          { title: 'Blank run of the tester', shown: facts.blank !== null, card: <BlankCard /> },
        ]}
      />
    </>
  );
}

function Below() {
  const { earlier, state, context } = useJob();
  return (
    <LeakTrend
      history={earlier?.history ?? null}
      now={state}
      zone={context.shop.zone}
      atLeast={LEAK_TRENDS_AT_LEAST}
    />
  );
}

export default function TestStage() {
  return (
    <TestingProvider>
      <BenchLayout mat={<Mat />} lamp={<TestLamp />} below={<Below />} />
    </TestingProvider>
  );
}
