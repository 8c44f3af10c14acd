import type { Book } from '../../craft/book';
import { type CellTable, readCellMarking, type Supply, SUPPLY_WORDS, supplySaid } from '../../craft/cells';
import type { Judged } from '../../craft/judgement';
import type { Calibre } from '../../craft/movements';
import type { Entry, JobState } from '../../logbook';

/** One thing that says what this watch runs from, in words; `entry`: where it is recorded. */
interface SupplyWitness {
  readonly says: Supply | 'may be rechargeable';
  readonly words: string;
  readonly entry: Pick<Entry, 'sequence'>;
}

/** What a watch runs from, as far as a job tells, and why no cell of a kind may go in. */
export type SupplyVerdict = Judged<Supply | 'contradicted' | 'not known'> & {
  /** Why no primary cell may go in; empty: nothing speaks against it. */
  readonly againstPrimary: readonly string[];
  /** Why no accumulator may. */
  readonly againstRechargeable: readonly string[];
};

/** What was found, printed, engraved, told and done that says what the watch runs from. */
function witnesses({ facts }: Pick<JobState, 'facts'>, table: CellTable): SupplyWitness[] {
  const said = (
    entry: Pick<Entry, 'sequence'>,
    where: string,
    text: string,
    namesCount: boolean,
  ): SupplyWitness[] => {
    const heard = supplySaid(text, table, { namesCount });
    return heard ? [{ says: heard.supply, words: `${where} “${heard.by}”`, entry }] : [];
  };
  const { complaint, service, watch, engraving } = facts;
  return [
    // Also what was recorded before the movement was named, and its places with it.
    ...[...facts.cellsFound.values()].flatMap((found): SupplyWitness[] => {
      const { marking } = found.payload;
      if (marking === null) return [];
      const reading = readCellMarking(marking, table);
      if (reading.verdict === 'rechargeable')
        return [{ says: 'rechargeable', words: `the cell found is “${marking}”`, entry: found }];
      if (reading.verdict === 'read')
        return [{ says: 'primary', words: `the cell found is ${reading.cell.code}`, entry: found }];
      return reading.mayBeRechargeable
        ? [
            {
              says: 'may be rechargeable',
              words: `the cell found reads only “${marking}”, and it may be rechargeable`,
              entry: found,
            },
          ]
        : [];
    }),
    ...facts.prints.flatMap((print) => said(print, 'the print inside says', print.payload.text, true)),
    ...(engraving ? said(engraving, 'the engraving says', engraving.payload.text, false) : []),
    ...(watch ? said(watch, 'engraved on the outside is', watch.payload.engraved, false) : []),
    ...(complaint?.payload.picked.includes('does not hold its charge')
      ? [
          {
            says: 'rechargeable' as const,
            words: 'the owner says it does not hold its charge',
            entry: complaint,
          },
        ]
      : []),
    ...(complaint ? said(complaint, 'the owner says', complaint.payload.words, false) : []),
    ...(service?.payload.service === 'recharge or new accumulator'
      ? [{ says: 'rechargeable' as const, words: 'it was brought in to be recharged', entry: service }]
      : []),
    ...facts.charges
      .filter(({ payload }) => payload.outcome !== 'does not run')
      .map((charge): SupplyWitness => ({
        says: 'rechargeable',
        words: 'it ran once it was charged',
        entry: charge,
      })),
  ];
}

/** What the book has a movement on; null where it does not say, as of one a shop entered before anybody saw its cell. */
export function supplyInBook(calibre: Pick<Calibre, 'charge' | 'wells'> | null): Supply | null {
  if (calibre?.charge) return 'rechargeable';
  return calibre?.wells.some(({ cellCode }) => cellCode !== '') ? 'primary' : null;
}

/** Whether somebody named the supply after a witness was heard, and so against it. What waits in the browser comes last. */
function namedAfter({ supply }: JobState['facts'], { entry }: SupplyWitness): boolean {
  const at = ({ sequence }: SupplyWitness['entry']): number => sequence ?? Number.MAX_SAFE_INTEGER;
  return supply !== null && at(supply) >= at(entry);
}

/**
 * What this watch runs from, whether its movement is in the book or not. What is found, printed, engraved or told of one
 * kind bars cells of the other until somebody names the kind, with a reason, after it was seen. A book that charges its
 * movement is never overruled: a primary cell in its place would be charged, and leak or burst. Where the book has a
 * kit, a primary cell found in its place was wrong. Source: bench practice.
 */
export function supplyOf(
  state: Pick<JobState, 'facts' | 'calibre'>,
  { cellTable }: Pick<Book, 'cellTable'>,
): SupplyVerdict {
  const { calibre, facts } = state;
  const named = facts.supply?.payload ?? null;
  const heard = witnesses(state, cellTable);
  const inBook = supplyInBook(calibre);
  const stands = heard.filter((each) => {
    if (named !== null && named.runsFrom !== each.says && namedAfter(facts, each)) return false;
    // A half-legible name is settled by the book; a primary cell found where the book has a kit was wrong.
    if (each.says === 'may be rechargeable')
      return inBook !== 'primary' && named?.runsFrom !== 'rechargeable';
    return !(each.says === 'primary' && inBook === 'rechargeable');
  });
  const because = (says: SupplyWitness['says']): string[] =>
    stands.filter((each) => each.says === says).map(({ words }) => words);
  const bookSays = calibre && inBook ? [`the book has ${calibre.code} with ${SUPPLY_WORDS[inBook]}`] : [];
  const saysSo = named
    ? [`it was recorded as running on ${SUPPLY_WORDS[named.runsFrom]}: ${named.reason}`]
    : [];
  const againstPrimary = [
    ...(inBook === 'rechargeable' ? bookSays : []),
    ...(named?.runsFrom === 'rechargeable' ? saysSo : []),
    ...because('rechargeable'),
    ...because('may be rechargeable'),
  ];
  const againstRechargeable = [
    ...(inBook === 'primary' && named?.runsFrom !== 'rechargeable' ? bookSays : []),
    ...(named?.runsFrom === 'primary' && inBook !== 'rechargeable' ? saysSo : []),
    ...because('primary'),
  ];
  const verdict =
    againstPrimary.length > 0
      ? againstRechargeable.length > 0
        ? 'contradicted'
        : because('may be rechargeable').length === againstPrimary.length
          ? 'not known'
          : 'rechargeable'
      : againstRechargeable.length > 0
        ? 'primary'
        : 'not known';
  return {
    verdict,
    againstPrimary,
    againstRechargeable,
    reasons: [...againstPrimary, ...againstRechargeable],
    working: [],
  };
}
