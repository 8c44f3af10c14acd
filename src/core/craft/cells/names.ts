/** A name without spaces, dashes and case, a letter O among its digits read as a nought: how names are compared. */
export function bareName(name: string): string {
  return noughts(name.toUpperCase().replace(/[\s\-.·_]+/g, ''));
}

/** Puts a nought where a name has a letter O among its digits: `CR2O32`, `37O`, `AGO`. */
export function noughts(token: string): string {
  return token.replace(/(?<=^[A-Z]{2,3}|\d)O|(?<=^)O(?=\d)/g, '0').replace(/(?<=\d)O/g, '0');
}
