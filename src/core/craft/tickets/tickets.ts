/**
 * Tickets are what label and barcode carry: the letter T, the running number, and a check digit over the
 * number (Luhn, ISO/IEC 7812-1), so that a mistyped ticket is noticed instead of opening another watch.
 */
const MIN_DIGITS = 4;
/** Numbers have an even count of digits: one digit dropped then leaves a count that no ticket has, however long the list. */
const evenDigits = (length: number): number => Math.max(MIN_DIGITS, length + (length % 2));

function luhnDigit(digits: string): number {
  let sum = 0;
  [...digits].reverse().forEach((character, index) => {
    const doubled = Number(character) * (index % 2 === 0 ? 2 : 1);
    sum += doubled > 9 ? doubled - 9 : doubled;
  });
  return (10 - (sum % 10)) % 10;
}

/** The ticket for a running number: 427 → `T0427-` and its check digit. Whole numbers from 1; else no ticket, empty. */
export function makeTicket(runningNumber: number): string {
  // No ticket is made of what counts no watch: nothing reads it back as one.
  if (!Number.isSafeInteger(runningNumber) || runningNumber < 1) return '';
  const plain = String(runningNumber);
  const digits = plain.padStart(evenDigits(plain.length), '0');
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
  if (digits.length % 2 === 1)
    return {
      verdict: 'misread',
      reason: `${text.trim()} looks like a ticket with a missing or extra digit. Check it.`,
    };
  if (luhnDigit(digits) !== Number(check)) {
    return {
      verdict: 'misread',
      reason: `${text.trim()} looks like a ticket, but its check digit is wrong. Check it.`,
    };
  }
  return { verdict: 'ticket', ticket: `T${digits}-${check}` };
}
