import { v7 } from 'uuid';
import { z } from 'zod';
import { type Customer, customer, kindDefinition } from '../../../contract';
import { promiseFor } from '../../../core/advice/arrival';
import type { EntryKind } from '../../../core/logbook';
import { type SeenShop, shopNow } from '../../api/resources';
import { fieldsOf } from '../../kit/fields';

/** What is recorded as a watch is taken in. */
export const FACTS = {
  watch: 'arrive.watch',
  complaint: 'arrive.complaint',
  stopped: 'arrive.stopped',
  service: 'arrive.service',
  promise: 'arrive.promise',
  consent: 'arrive.consent',
} as const satisfies Record<string, EntryKind>;

export const intake = z.object({
  customer,
  watch: kindDefinition(FACTS.watch).schema,
  complaint: kindDefinition(FACTS.complaint).schema,
  stopped: kindDefinition(FACTS.stopped).schema,
  service: kindDefinition(FACTS.service).schema,
  promise: kindDefinition(FACTS.promise).schema,
  consent: kindDefinition(FACTS.consent).schema,
});
export type Intake = z.infer<typeof intake>;

/** A field of one of the facts taken in at once. */
export type IntakeField = { [Fact in keyof Intake]: `${Fact}.${keyof Intake[Fact] & string}` }[keyof Intake];
export const intakeFields = fieldsOf<Record<IntakeField, unknown>>();
export const under = <Fact extends keyof Intake>(fact: Fact): `${Fact}.` => `${fact}.`;

export const DRAFT_KEY = 'wax-lantern.intake';

export function emptyIntake({ policy, shop }: Pick<SeenShop, 'policy' | 'shop'>, nowUtc: string): Intake {
  return {
    customer: { id: v7(), name: '', phone: '', email: '' },
    watch: { maker: '', reference: '', serial: '', engraved: '', ratingBar: null, crownClock: null },
    complaint: { picked: [], words: '' },
    stopped: { stoppedOn: null },
    service: { service: 'cell only', priceMinor: policy.services['cell only'].priceMinor },
    promise: { promisedAt: promiseFor('cell only', null, { policy, shop, nowUtc, catalogue: null }) },
    consent: { risks: ['old parts', 'water resistance'], given: false },
  };
}

/** Watches taken in from this page: their form tells its values once more as it goes, and the next one would open with them. */
export const takenIn = new Set<string>();

/** The next watch of a visit: owner and promise as they are, the rest empty. */
export function intakeOf(visit: BegunVisit, shop: SeenShop): Intake {
  const empty = emptyIntake(shop, shopNow(shop));
  return {
    ...empty,
    customer: visit.customer,
    promise: { promisedAt: visit.promisedAt ?? empty.promise.promisedAt },
  };
}

/** Wrong in kind, not merely half filled in: a draft of another version, or of another hand. */
const WRONG_SHAPE: readonly string[] = ['invalid_type', 'invalid_value', 'unrecognized_keys'];

/** What was typed before a reload, half filled in or not, as long as it has the shape of today's form. */
export function keptIntake(): Intake | null {
  try {
    const kept: unknown = JSON.parse(sessionStorage.getItem(DRAFT_KEY) ?? 'null');
    const read = intake.safeParse(kept);
    const fits = read.success || !read.error.issues.some(({ code }) => WRONG_SHAPE.includes(code));
    return fits ? (kept as Intake) : null;
  } catch {
    return null;
  }
}

/** Whether it is said since when it stands; of a watch that runs nothing is recorded, whatever was typed before. */
export const saysWhen = ({ complaint, stopped }: Pick<Intake, 'complaint' | 'stopped'>): boolean =>
  complaint.picked.includes('stopped') && stopped.stoppedOn !== null;

/** A visit already begun: its owner and promise hold for the next watch too. */
export interface BegunVisit {
  readonly visitId: string;
  readonly ticket: string;
  readonly customer: Customer;
  readonly promisedAt: string | null;
}
