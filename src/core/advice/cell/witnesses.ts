import type { Book } from '../../craft/book';
import { cellNamedIn, weighWitnesses, type WitnessVerdict } from '../../craft/cells';
import type { JobState, WellState } from '../../logbook';

/** What book, print, cell found and measured well of a job say together about one place. */
export function witnessesOf(state: JobState, well: WellState, book: Book): WitnessVerdict {
  const texts = [
    ...state.facts.prints.map(({ payload }) => payload.text),
    ...(state.facts.engraving ? [state.facts.engraving.payload.text] : []),
  ];
  // With several places a print does not say which of them it means.
  const print =
    state.wells.length === 1
      ? (texts.map((text) => cellNamedIn(text, book.cellTable)).find((cell) => cell !== null) ?? null)
      : null;
  return weighWitnesses(
    {
      book: well.wanted,
      print,
      found: well.foundCell,
      well: well.measured?.payload ?? null,
    },
    book.cellTable,
  );
}
