import { expose } from 'comlink';
import { parse } from 'csv-parse/browser/esm/sync';
import {
  delimiterOf,
  judgeLeak,
  type LeakEvidence,
  type LeakJudgement,
  type LeakRecord,
  type LeakSetting,
  openTraceReader,
  outlookOf,
  residualsOf,
  type TraceReading,
  traceRowsOfJson,
} from '../../core/craft/tightness';

/** A file of more is not the record of one test. */
const MOST_BYTES = 200_000_000;
const TOLD_EACH = 20_000;
const HEAD = 20_000;

const refused = (reason: string, whatToDo: string): TraceReading => ({
  verdict: 'refused',
  reasons: [reason],
  whatToDo,
});

/** What stands in a text as JSON; undefined where it is none. */
function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

/** Reads traces and fits leaks beside the page, so that no key waits for them. */
const worker = {
  judge: (evidence: LeakEvidence, setting: LeakSetting): LeakJudgement => judgeLeak(evidence, setting),
  residuals: (record: LeakRecord, setting: LeakSetting): ReturnType<typeof residualsOf> =>
    residualsOf(record, setting),
  outlook: (record: LeakRecord, setting: LeakSetting, watchS: number): ReturnType<typeof outlookOf> =>
    outlookOf(record, setting, watchS),
  /** A tester's file, CSV or JSON, as a record; `onRows` hears how many rows were read. */
  async readFile(file: Blob, onRows: (rows: number) => void): Promise<TraceReading> {
    if (file.size > MOST_BYTES)
      return refused('The file is over 200 MB.', 'Send the record of the one test.');
    const text = (await file.text()).replace(/^\uFEFF/, '');
    const reader = openTraceReader();
    if (/^\s*[[{]/.test(text)) {
      const value = jsonIn(text);
      if (value === undefined)
        return refused('The file starts like JSON but is not valid JSON.', 'Export it again, or use CSV.');
      const rows = traceRowsOfJson(value);
      if (rows === null)
        return refused(
          'The JSON contains no list of points.',
          'Use a list of points with time, pressure and deflection, or one list of figures for each name.',
        );
      rows.forEach((cells, i) => reader.row(cells, i));
      return reader.done();
    }
    try {
      parse(text, {
        delimiter: delimiterOf(text.slice(0, HEAD)),
        relax_column_count: true,
        relax_quotes: true,
        skip_empty_lines: true,
        on_record: (cells: readonly string[], { lines }: { readonly lines: number }) => {
          reader.row(cells, lines);
          if (lines % TOLD_EACH === 0) onRows(lines);
          // Nothing is kept here: the reader has what it wants.
          return null;
        },
      });
    } catch (error) {
      return refused(
        `The file cannot be read as a table: ${error instanceof Error ? error.message : String(error)}`,
        'Save it as CSV again.',
      );
    }
    return reader.done();
  },
};
export type LeakWorker = typeof worker;

expose(worker);
