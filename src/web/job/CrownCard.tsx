import { CROWNS } from '../../core/craft/cases';
import { factFields } from '../kit/factFields';
import { optionsOf } from '../kit/fields';
import { FactCard } from './FactCard';
import { useJob } from './JobContext';

const arriveCrown = factFields('arrive.crown');

/** What kind of crown the watch has, where a stage has to know it. */
export function CrownCard({ wanted = false }: { readonly wanted?: boolean }) {
  const { state } = useJob();
  return (
    <FactCard kind="arrive.crown" title="The crown" recorded={state.facts.crown} defaults={{ crown: null }}>
      <arriveCrown.Choice name="crown" options={optionsOf(CROWNS)} wanted={wanted} />
    </FactCard>
  );
}
