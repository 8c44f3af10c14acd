import { figure } from '../judgement';
/** What a count of a lot saw in the ledger. */
interface Seen {
  readonly balanceSeen: number;
  readonly unbookedSeen: number;
}

interface Moved {
  readonly delta: number;
  readonly reason: string;
  readonly ticket: string;
}

/**
 * What became of a lot since a count saw it, in words: the ledger's lines, the newest given first, back to where the
 * balance was the one seen, and what was taken beyond it. Pieces.
 */
export function sinceCounted(
  lot: { readonly balance: number; readonly unbooked: number },
  lines: readonly Moved[],
  { balanceSeen, unbookedSeen }: Seen,
): string {
  const since: string[] = [];
  let { balance } = lot;
  for (const { delta, reason, ticket } of lines) {
    if (balance === balanceSeen) break;
    balance -= delta;
    since.unshift(
      `${delta > 0 ? '+' : '−'}${figure(Math.abs(delta), 0)} ${[reason, ticket].filter(Boolean).join(' ')}`,
    );
  }
  const beyond = lot.unbooked - unbookedSeen;
  if (beyond > 0) since.push(`${figure(beyond, 0)} more taken than booked`);
  return `The ledger showed ${figure(balanceSeen, 0)} when this was counted. Since then: ${since.join(', ')}.`;
}
