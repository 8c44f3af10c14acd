import type { Policy } from '../../craft/policy';
import type { JobState, Payloads } from '../../logbook';

type Holds<K extends keyof Payloads> = { readonly kind: K; readonly payload: Payloads[K] };

/**
 * What the job holds that waits for the part once a watch was closed for the time being: the watch, why it comes again, what is
 * done then, and what was ordered. Null while nobody recorded which watch it is. Source: ours.
 */
export function followUpOf(
  { facts }: Pick<JobState, 'facts'>,
  ticket: string,
  { services }: Pick<Policy, 'services'>,
):
  | readonly (
      | Holds<'arrive.watch'>
      | Holds<'arrive.complaint'>
      | Holds<'arrive.service'>
      | Holds<'arrive.parts-request'>
    )[]
  | null {
  const { watch, partsRequest } = facts;
  if (watch === null) return null;
  return [
    { kind: 'arrive.watch', payload: watch.payload },
    {
      kind: 'arrive.complaint',
      payload: {
        picked: [],
        words: `closed temporarily on ${ticket}, to be sealed when the part arrives`,
      },
    },
    {
      kind: 'arrive.service',
      payload: { service: 'reseal and test', priceMinor: services['reseal and test'].priceMinor },
    },
    ...(partsRequest ? [{ kind: 'arrive.parts-request' as const, payload: partsRequest.payload }] : []),
  ];
}
