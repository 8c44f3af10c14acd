import { randomUUID } from 'node:crypto';
import type { Customer, NewOwnerRevision } from '../../../contract';
import { sameDetails, activeRevisions } from '../../../core/logbook';
import { type NotKept, refusal } from './outcomes';
import type { LogbookParts } from './parts';
import { updateProjectionsOfOwner } from './projections';
import type { RevisionOnFile } from './tables';

export type Revised =
  | { readonly outcome: 'revised' }
  | { readonly outcome: 'same again' }
  | { readonly outcome: 'no such customer' }
  | NotKept;

/** Writes a revision, and what follows of it: the details that stand now, the search, the envelopes. */
function write(parts: LogbookParts, revision: RevisionOnFile): void {
  const { people, owners } = parts;
  const onFile = people.customer(revision.customerId);
  people.addRevision(revision);
  const current = activeRevisions(people.revisions(revision.customerId)).at(-1) ?? revision;
  const { name, phone, email } = current;
  const owner = { id: revision.customerId, name, phone, email };
  people.writeCustomer(owner, revision.recordedAt);
  owners.remember(owner);
  if (onFile && (onFile.name !== name || onFile.phone !== phone))
    updateProjectionsOfOwner(parts, revision.customerId);
}

/** Inside a write: an owner who is new here, as described by a hand. */
export function addOwner(parts: LogbookParts, customer: Customer, technicianId: string): void {
  const { people, owners, clock } = parts;
  const recordedAt = clock.nowUtc();
  people.writeCustomer(customer, recordedAt);
  const { id, name, phone, email } = customer;
  // Under the owner's own id, unless somebody gave that to another revision.
  const revisionId = people.revision(id) === null ? id : randomUUID();
  people.addRevision({
    id: revisionId,
    customerId: id,
    name,
    phone,
    email,
    supersedes: [],
    technicianId,
    recordedAt,
  });
  owners.remember(customer);
}

/** Inside a write: an owner as given at the counter; where that differs it is a revision, in the place of what was seen. */
export function keepOwner(
  parts: LogbookParts,
  customer: Customer,
  seen: readonly string[] | undefined,
  technicianId: string,
): void {
  const { people, clock } = parts;
  const onFile = people.customer(customer.id);
  if (!onFile) {
    addOwner(parts, customer, technicianId);
    return;
  }
  if (onFile.erasedAt) throw refusal('This owner was erased.', 'Take the owner in as a new one.');
  const revisions = people.revisions(customer.id);
  const active = activeRevisions(revisions);
  // Who leaves the details as they were seen, or as they stand, revises nothing.
  const asSeen = seen === undefined ? [] : revisions.filter(({ id }) => seen.includes(id));
  if ([...active, ...asSeen].some((each) => sameDetails(each, customer))) return;
  const { id: customerId, name, phone, email } = customer;
  write(parts, {
    id: randomUUID(),
    customerId,
    name,
    phone,
    email,
    supersedes: asSeen.length > 0 ? asSeen.map(({ id }) => id) : active.map(({ id }) => id),
    technicianId,
    recordedAt: clock.nowUtc(),
  });
}

/** Inside a write: an owner's details put right, in the place of the revisions their writer saw. */
export function reviseOwner(parts: LogbookParts, customerId: string, given: NewOwnerRevision): Revised {
  const { people, clock } = parts;
  const onFile = people.customer(customerId);
  if (!onFile) return { outcome: 'no such customer' };
  if (onFile.erasedAt)
    return {
      outcome: 'refused',
      reasons: ['This owner was erased.'],
      whatToDo: 'Take the owner in as a new one.',
    };
  if (!people.isTechnician(given.technicianId)) return { outcome: 'no such technician' };
  const before = people.revision(given.id);
  if (before)
    return before.customerId === customerId &&
      sameDetails(before, given) &&
      before.technicianId === given.technicianId &&
      before.supersedes.join() === given.supersedes.join()
      ? { outcome: 'same again' }
      : { outcome: 'other body under this id' };
  const own = new Set(people.revisions(customerId).map(({ id }) => id));
  if (given.supersedes.length === 0 || given.supersedes.some((id) => !own.has(id)))
    return {
      outcome: 'refused',
      reasons: ['It does not say in the place of which details it was written.'],
      whatToDo: 'Load the owner again, and put right what is shown there.',
    };
  write(parts, { ...given, customerId, recordedAt: clock.nowUtc() });
  return { outcome: 'revised' };
}
