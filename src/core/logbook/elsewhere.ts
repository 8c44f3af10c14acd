/** Where an entry was recorded, in words, where that was another counter; null for this one. */
export function elsewhereWords({ counter }: { readonly counter?: string | null }): string | null {
  // What a browser kept before counters were told apart names none.
  return counter ? `at another counter, ${counter}` : null;
}
