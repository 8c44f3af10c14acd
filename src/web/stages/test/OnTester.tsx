import { Alert, Box, Button, LinearProgress, Stack, Typography } from '@mui/material';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { recordOfSamples, type TraceSample } from '../../../core/craft/devices';
import { capital, figure } from '../../../core/craft/judgement';
import { condense, pressureWords } from '../../../core/craft/tightness';
import type { KeptRecord } from '../../../core/logbook';
import { askDevice, faultWords, useConnected } from '../../api/devices';
import { KeyCap } from '../../kit/KeyCap';
import { useKey } from '../../kit/keys/KeysProvider';
import { FileButton } from '../../kit/FileButton';
import { readTrace } from './leakWorker';

const TraceFigure = lazy(() => import('../../figures/TraceFigure'));

/** The screen is drawn anew so often at most, while a tester runs, ms. */
const DRAWN_EVERY_MS = 200;

interface Running {
  readonly samples: readonly TraceSample[];
  readonly phase: string;
  readonly ofS: number;
}

interface Props {
  /** Over the air outside; 0 for a blank run; null while it is not typed. */
  readonly overBar: number | null;
  readonly seconds: number | null;
  readonly action: string;
  /** Why it may not be run just now. */
  readonly refused?: readonly string[];
  readonly onRecord: (record: KeptRecord) => void;
}

const NOTHING_AGAINST: readonly string[] = [];

/** The key that lets the pressure off, bound only while the tester runs. */
function StopKey({ onStop }: { readonly onStop: () => void }) {
  useKey('x', 'Stop the tester', onStop);
  return null;
}

/** Runs the connected tester: its curve as it comes, how far it is, and a way to stop it. */
export function OnTester({ overBar, seconds, action, refused = NOTHING_AGAINST, onRecord }: Props) {
  const connected = useConnected('leak-tester');
  const [running, setRunning] = useState<Running | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const stopper = useRef<AbortController | null>(null);
  useEffect(() => () => stopper.current?.abort(), []);
  if (!connected) return null;
  const figures = overBar !== null && seconds !== null && seconds >= 20;
  const ready = figures && refused.length === 0;
  const stop = (): void => stopper.current?.abort();
  const run = async (): Promise<void> => {
    if (overBar === null || seconds === null) return;
    const abort = new AbortController();
    stopper.current = abort;
    const samples: TraceSample[] = [];
    let drawn = 0;
    setFault(null);
    setRunning({ samples: [], phase: 'baseline', ofS: 1 });
    const said = await askDevice(
      'leak-tester',
      { ask: 'trace', pressureBar: overBar, seconds },
      (says) => {
        if (says.says !== 'sample') return;
        samples.push(says.sample);
        if (performance.now() - drawn < DRAWN_EVERY_MS) return;
        drawn = performance.now();
        setRunning({ samples: [...samples], phase: says.phase, ofS: says.ofS });
      },
      abort.signal,
    );
    setRunning(null);
    if (said.says === 'trace')
      onRecord({ ...condense(recordOfSamples(samples)), from: 'the tester', repairs: [] });
    else setFault(faultWords(said) ?? 'The tester broke off: nothing of it was kept.');
  };
  return (
    <Stack spacing={1}>
      {running === null ? (
        <Stack direction="row" spacing={1.5} sx={{ alignItems: 'center' }}>
          <Button variant="outlined" disabled={!ready} onClick={() => void run()}>
            {action}
          </Button>
          {!ready && (
            <Typography variant="body2" color="text.secondary">
              {figures ? `Not run: ${refused.join(' ')}` : 'Pressure and duration first, 20 s at least.'}
            </Typography>
          )}
        </Stack>
      ) : (
        <Box role="group" aria-label="The tester runs">
          <StopKey onStop={stop} />
          <Stack direction="row" spacing={1.5} sx={{ alignItems: 'center' }}>
            <Typography role="status" sx={{ flexGrow: 1, fontWeight: 700 }}>
              {capital(running.phase)}
              {overBar === 0 ? '' : `, ${pressureWords(overBar ?? 0)}`}
            </Typography>
            <Typography sx={{ fontVariantNumeric: 'tabular-nums' }}>
              {figure(running.samples.at(-1)?.atS ?? 0, 0)} of {figure(running.ofS, 0)} s
            </Typography>
            <Button variant="contained" color="error" onClick={stop}>
              Stop, let the pressure off
              <Box component="span" sx={{ ml: 1 }}>
                <KeyCap>x</KeyCap>
              </Box>
            </Button>
          </Stack>
          <LinearProgress
            aria-label="How far the test is"
            variant="determinate"
            value={(100 * (running.samples.at(-1)?.atS ?? 0)) / running.ofS}
            sx={{ my: 0.75 }}
          />
          <Suspense>
            <TraceFigure record={recordOfSamples(running.samples)} wholeS={running.ofS} />
          </Suspense>
        </Box>
      )}
      {fault && <Alert severity="warning">{fault}</Alert>}
    </Stack>
  );
}

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

/** Reads a tester's file, CSV or JSON, beside the page. */
export function FromFile({ label, onRecord }: FromFileProps) {
  const [rows, setRows] = useState<number | null>(null);
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  const read = async (file: File): Promise<void> => {
    setRefusal(null);
    setRows(0);
    const reading = await readTrace(file, setRows).catch((): Refusal & { verdict: 'refused' } => ({
      verdict: 'refused',
      reasons: ['The file could not be read.'],
      whatToDo: 'Try it once more, or type the two figures.',
    }));
    setRows(null);
    if (reading.verdict === 'refused') setRefusal(reading);
    else
      onRecord({
        ...reading.record,
        from: file.name.slice(0, 120) || 'a file',
        repairs: [...reading.understood.map((each) => `Read: ${each}.`), ...reading.repairs]
          .map((line) => line.slice(0, KEPT_LETTERS))
          .slice(0, KEPT_LINES),
      });
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
