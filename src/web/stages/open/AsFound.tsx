import { AS_FOUND } from '../../../core/logbook';
import { factFields } from '../../kit/factFields';
import { optionsOf } from '../../kit/fields';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';

const openAsFound = factFields('open.as-found');

/** What an earlier hand left, before anything inside is touched: in words and in photographs. */
export function AsFound() {
  const { state } = useJob();
  return (
    <FactCard
      kind="open.as-found"
      files
      title="As found, before anything is touched"
      recorded={state.facts.asFound}
      defaults={{ found: [], note: '' }}
    >
      <openAsFound.Several name="found" options={optionsOf(AS_FOUND)} />
      <openAsFound.TextLine name="note" />
    </FactCard>
  );
}
