import { CROWNS } from '../../core/craft/cases';
import type { Payloads } from '../../core/logbook';
import { fieldsOf, optionsOf } from '../kit/fields';
import { FactCard } from './FactCard';
import { useJob } from './JobContext';

const arriveCrown = fieldsOf<Payloads['arrive.crown']>();

/** What kind of crown the watch has, where a stage has to know it. */
export function CrownCard({ wanted = false }: { readonly wanted?: boolean }) {
  const { state } = useJob();
  return (
    <FactCard kind="arrive.crown" title="The crown" recorded={state.facts.crown} defaults={{ crown: null }}>
      <arriveCrown.Choice name="crown" label="The crown is" options={optionsOf(CROWNS)} wanted={wanted} />
    </FactCard>
  );
}
