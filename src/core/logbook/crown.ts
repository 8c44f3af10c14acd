import type { CaseType, CrownKind } from '../craft/cases';
import type { JobFacts } from './entry';

/** What crown this watch has: as somebody saw it here, else as the book has its case; null where nobody says. */
export function crownOf({
  facts,
  caseType,
}: {
  readonly facts: Pick<Readonly<JobFacts>, 'crown'>;
  readonly caseType: Pick<CaseType, 'crown'> | null;
}): CrownKind | null {
  return facts.crown?.payload.crown ?? caseType?.crown ?? null;
}
