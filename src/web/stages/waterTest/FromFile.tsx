import { Alert, Box, Stack, Typography } from '@mui/material';
import { useState } from 'react';
import type { TraceReading } from '../../../core/craft/tightness';
import type { KeptRecord } from '../../../core/logbook';
import { FileButton } from '../../kit/FileButton';
import { readTrace } from './leakWorker';

interface FromFileProps {
  readonly label: string;
  readonly onRecord: (record: KeptRecord) => void;
}

interface Refusal {
  readonly reasons: readonly string[];
  readonly whatToDo: string;
}

/** So many repairs and readings of columns are kept with a record. */
const KEPT_LINES = 20;
const KEPT_LETTERS = 300;

/** What a tester wrote, read beside the page; where that breaks off it is refused, too. */
export function readRecord(file: Blob, onRows: (rows: number) => void): Promise<TraceReading> {
  return readTrace(file, onRows).catch((): TraceReading => ({
    verdict: 'refused',
    reasons: ['The record of the tester could not be read.'],
    whatToDo: 'Try again, or enter the two figures.',
  }));
}

/** A record as it is kept with the test: where it comes from, how it was understood, and what was put right. */
export function keptOf(
  { record, understood, repairs }: TraceReading & { verdict: 'read' },
  from: string,
): KeptRecord {
  return {
    ...record,
    from: from.slice(0, 120) || 'a file',
    repairs: [...understood.map((each) => `Read: ${each}.`), ...repairs]
      .map((line) => line.slice(0, KEPT_LETTERS))
      .slice(0, KEPT_LINES),
  };
}

/** Reads a tester's file, CSV or JSON, beside the page. */
export function FromFile({ label, onRecord }: FromFileProps) {
  const [rows, setRows] = useState<number | null>(null);
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  const read = async (file: File): Promise<void> => {
    setRefusal(null);
    setRows(0);
    const reading = await readRecord(file, setRows);
    setRows(null);
    if (reading.verdict === 'refused') setRefusal(reading);
    else onRecord(keptOf(reading, file.name));
  };
  return (
    <Stack spacing={1}>
      <Box>
        <FileButton
          label={label}
          accept=".csv,.txt,.json,text/csv,application/json"
          disabled={rows !== null}
          onFiles={([file]) => {
            if (file) void read(file);
          }}
        >
          From a file
        </FileButton>
      </Box>
      {rows !== null && (
        <Typography role="status">{rows === 0 ? 'The file is read …' : `${rows} rows read …`}</Typography>
      )}
      {refusal && (
        <Alert severity="error">
          {refusal.reasons.join(' ')} {refusal.whatToDo}
        </Alert>
      )}
    </Stack>
  );
}
