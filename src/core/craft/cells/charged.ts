/** Words that forbid charging: they stand on primary cells and beside their places. */
const NEVER_CHARGED =
  /\b(?:NON|NOT|NEVER|DO\s+NOT|DON['’]?T|NO)[\s-]+(?:TO\s+BE\s+|BE\s+)?(?:RE[\s-]?)?CHARG\w*/g;
/** Words of what is charged. *Charge* alone is not one: a price is a charge too. */
const CHARGED =
  /\b(?:RE[\s-]?CHARG\w*|ACCUMULATORS?|ACCU|AKKU|CAPACITORS?|SECONDARY\s+(?:CELL|BATTERY)|SOLAR|(?:LIGHT|SUN)[\s-]?(?:POWERED|CHARGED)|LI(?:THIUM)?[\s-]?ION|TITANIUM[\s-]LITHIUM)\b/;

/** A text in capitals without the words that forbid charging. */
export function withoutForbidding(text: string): string {
  return text.toUpperCase().replace(NEVER_CHARGED, ' ');
}

/** The word by which a text says that what it speaks of is charged; null where none does. */
export function rechargeableWord(text: string): string | null {
  return CHARGED.exec(withoutForbidding(text))?.[0] ?? null;
}

/** The words by which a text forbids charging; null where it does not. */
export function forbidsCharging(text: string): string | null {
  return text.toUpperCase().match(NEVER_CHARGED)?.[0] ?? null;
}
