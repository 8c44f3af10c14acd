/**
 * Tickets are what label and barcode carry: the letter T, the running number, and a check digit over the
 * number (Luhn, ISO/IEC 7812-1), so that a mistyped ticket is noticed instead of opening another watch.
 */
const MIN_DIGITS = 4;

function luhnDigit(digits: string): number {
  let sum = 0;
  [...digits].reverse().forEach((character, index) => {
    const doubled = Number(character) * (index % 2 === 0 ? 2 : 1);
    sum += doubled > 9 ? doubled - 9 : doubled;
  });
  return (10 - (sum % 10)) % 10;
}

/** The ticket for a running number: 427 → `T0427-` and its check digit. Whole numbers from 1. */
export function makeTicket(runningNumber: number): string {
  const digits = String(runningNumber).padStart(MIN_DIGITS, '0');
  return `T${digits}-${luhnDigit(digits)}`;
}

export type TicketReading =
  | { readonly verdict: 'ticket'; readonly ticket: string }
  | { readonly verdict: 'misread'; readonly reason: string }
  | { readonly verdict: 'not a ticket' };

/** Whether a typed or scanned text is a ticket, a ticket read wrongly, or something else. */
export function readTicket(text: string): TicketReading {
  const match = /^T\s*(\d{4,9})[\s-]?(\d)$/i.exec(text.trim());
  if (!match) return { verdict: 'not a ticket' };
  const [, digits = '', check = ''] = match;
  if (luhnDigit(digits) !== Number(check)) {
    return {
      verdict: 'misread',
      reason: `${text.trim()} looks like a ticket, but its last digit does not agree with the others. Read it again.`,
    };
  }
  return { verdict: 'ticket', ticket: `T${digits}-${check}` };
}
