import { requestFor } from '../../../core/advice/arrival';
import { CrownCard } from '../../job/CrownCard';
import { useJob } from '../../job/JobContext';
import type { OptionalFact } from '../../job/OptionalFacts';

import {
  AgreementCard,
  DecisionCard,
  EstimateCard,
  LastChangeCard,
  MarksCard,
  OriginalityCard,
  PartsCard,
  ReadyCard,
  StoppedCard,
  useNeeds,
  WearCard,
} from './optionalCards';

/** Facts of arrival that are not asked of every watch. */
export function useOptionalOfArrival(): OptionalFact[] {
  const { state, asks } = useJob();
  const { facts } = state;
  const lacking = requestFor(useNeeds());
  return [
    {
      title: 'Last cell change',
      shown: facts.cellHistory !== null || asks('arrive.cell-history'),
      card: <LastChangeCard />,
    },
    {
      title: 'When it stopped',
      shown: facts.stopped !== null,
      card: <StoppedCard />,
    },
    {
      title: 'Use and exposure to water',
      shown: facts.wear !== null || asks('arrive.wear'),
      card: <WearCard />,
    },
    {
      title: 'The crown',
      shown: facts.crown !== null,
      card: <CrownCard />,
    },
    {
      title: 'Originality',
      shown: facts.originality !== null || asks('arrive.originality'),
      card: <OriginalityCard />,
    },
    {
      title: 'Marks on the watch',
      shown: facts.marks.length > 0,
      card: <MarksCard />,
    },
    {
      title: 'Estimate for extra work',
      shown: facts.estimate !== null,
      card: <EstimateCard />,
    },
    {
      title: 'Later agreement',
      shown: facts.agreements.length > 0,
      card: <AgreementCard />,
    },
    {
      title: 'Ready to open?',
      shown: facts.ready !== null || asks('arrive.ready'),
      card: <ReadyCard />,
    },
    {
      title: 'Parts to wait for',
      shown: facts.partsRequest !== null || lacking.length > 0,
      card: <PartsCard />,
    },
    {
      title: 'Refer or decline',
      shown: facts.decision !== null || asks('arrive.decision'),
      card: <DecisionCard />,
    },
  ];
}
