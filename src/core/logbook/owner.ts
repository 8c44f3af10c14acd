/** How an owner is called and reached. */
export interface OwnerDetails {
  readonly name: string;
  readonly phone: string;
  readonly email: string;
}

/** An owner's details as somebody wrote them, in the place of what they saw. */
export interface OwnerRevision extends OwnerDetails {
  readonly id: string;
  readonly supersedes: readonly string[];
  /** Null where nobody noted it. */
  readonly technicianId: string | null;
  readonly recordedAt: string;
}

/**
 * Which of an owner's revisions, in the order they were put on record, stand: those no later one was written in the
 * place of. More than one are a conflict: two hands changed the same, and a third revision in the place of both settles it.
 */
export function activeRevisions(revisions: readonly OwnerRevision[]): OwnerRevision[] {
  return revisions.filter(
    ({ id }, index) => !revisions.slice(index + 1).some((later) => later.supersedes.includes(id)),
  );
}

/** Whether two say the same of an owner. */
export function sameDetails(a: OwnerDetails, b: OwnerDetails): boolean {
  return a.name === b.name && a.phone === b.phone && a.email === b.email;
}
