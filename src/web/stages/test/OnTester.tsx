import { Alert, Box, Button, LinearProgress, Stack, Typography } from '@mui/material';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { v7 } from 'uuid';
import { isVented, recordOfSamples, type TracePhase, type TraceSample } from '../../../core/craft/devices';
import { capital, figure } from '../../../core/craft/judgement';
import {
  condense,
  type LeakSetting,
  mayEnd,
  NO_PRESSURE_BAR,
  pressureWords,
  type TestOutlook,
} from '../../../core/craft/tightness';
import type { KeptRecord } from '../../../core/logbook';
import { askDevice, faultWords, useConnected } from '../../api/devices';
import { KeyCap } from '../../kit/KeyCap';
import { useKey } from '../../kit/keys/KeysProvider';
import { FileButton } from '../../kit/FileButton';
import { outlookBeside, readTrace } from './leakWorker';

const TraceFigure = lazy(() => import('../../figures/TraceFigure'));

/** The screen is drawn anew so often at most, while a tester runs, ms. */
const DRAWN_EVERY_MS = 200;

/** What a run shows is worked out so often at most, in seconds of the test and ms of the clock. */
const [OUTLOOK_EACH_S, OUTLOOK_EACH_MS] = [5, 700];
interface Running {
  readonly samples: readonly TraceSample[];
  readonly phase: TracePhase;
  readonly ofS: number;
  /** The watch under pressure, and again after venting, as it is set now, s. */
  readonly watchS: number;
  readonly outlook: TestOutlook | null;
}

interface Props {
  /** Over the air outside; 0 for a blank run; null while it is not typed. */
  readonly overBar: number | null;
  readonly seconds: number | null;
  readonly action: string;
  /** Why it may not be run just now. */
  readonly refused?: readonly string[];
  /** What the test is judged in; without it nothing is said while it runs, as of a blank run. */
  readonly setting?: LeakSetting | null;
  readonly onRecord: (record: KeptRecord) => void;
}

const NOTHING_AGAINST: readonly string[] = [];

/** The key that lets the pressure off, bound only while the tester runs. */
function StopKey({ onStop }: { readonly onStop: () => void }) {
  useKey('x', 'Stop the tester', onStop);
  return null;
}

/** The key that gives the running test the time that would settle it. */
function ExtendKey({ watchS, onExtend }: { readonly watchS: number; readonly onExtend: () => void }) {
  useKey('e', `Watch ${figure(watchS, 0)} s`, onExtend);
  return (
    <Button variant="outlined" onClick={onExtend}>
      Watch {figure(watchS, 0)} s
      <Box component="span" sx={{ ml: 1 }}>
        <KeyCap>e</KeyCap>
      </Box>
    </Button>
  );
}

/** What a tester does just now, with the pressure in its chamber as it is, not as it was set. */
function phaseWords({ samples, phase }: Running): string {
  const overBar = samples.at(-1)?.overBar ?? 0;
  return `${capital(phase)}, ${Math.abs(overBar) < NO_PRESSURE_BAR ? 'no pressure in the chamber' : pressureWords(Number(overBar.toFixed(1)))}`;
}

/** Runs the connected tester: its curve as it comes, how far it is, whether the time will do, and ways to extend and to stop it. */
export function OnTester({
  overBar,
  seconds,
  action,
  refused = NOTHING_AGAINST,
  setting = null,
  onRecord,
}: Props) {
  const connected = useConnected('leak-tester');
  const [running, setRunning] = useState<Running | null>(null);
  const runId = useRef('');
  const [fault, setFault] = useState<string | null>(null);
  const stopper = useRef<AbortController | null>(null);
  const watch = useRef(0);
  useEffect(() => () => stopper.current?.abort(), []);
  if (!connected) return null;
  const figures = overBar !== null && seconds !== null && seconds >= 20;
  const ready = figures && refused.length === 0;
  const stop = (): void => stopper.current?.abort();
  const run = async (): Promise<void> => {
    if (overBar === null || seconds === null) return;
    const abort = new AbortController();
    stopper.current = abort;
    const run = v7();
    runId.current = run;
    const samples: TraceSample[] = [];
    let drawn = 0;
    let [looked, lookedS, looking] = [0, 0, false];
    const outlooks: TestOutlook[] = [];
    let early: readonly string[] = [];
    setFault(null);
    watch.current = seconds;
    setRunning({ samples: [], phase: 'baseline', ofS: 1, watchS: seconds, outlook: null });
    const look = async (atS: number): Promise<void> => {
      if (setting === null || looking) return;
      if (atS - lookedS < OUTLOOK_EACH_S || performance.now() - looked < OUTLOOK_EACH_MS) return;
      [looking, looked, lookedS] = [true, performance.now(), atS];
      const outlook = await outlookBeside(condense(recordOfSamples(samples)), setting, watch.current).catch(
        () => null,
      );
      looking = false;
      if (runId.current !== run || outlook === null) return;
      setRunning((now) => now && { ...now, outlook });
      outlooks.push(outlook);
      if (!mayEnd(outlooks)) return;
      early = [`The test ended early, at ${figure(atS, 0)} s, because its result was certain.`];
      await askDevice('leak-tester', { ask: 'change trace', run, seconds: null });
    };
    const said = await askDevice(
      'leak-tester',
      { ask: 'trace', pressureBar: overBar, seconds, run },
      (says) => {
        if (says.says !== 'sample') return;
        samples.push(says.sample);
        void look(says.sample.atS);
        if (performance.now() - drawn < DRAWN_EVERY_MS) return;
        drawn = performance.now();
        setRunning((now) => ({
          samples: [...samples],
          phase: says.phase,
          ofS: says.ofS,
          watchS: watch.current,
          outlook: now?.outlook ?? null,
        }));
      },
      abort.signal,
    );
    runId.current = '';
    setRunning(null);
    if (said.says === 'trace')
      onRecord({ ...condense(recordOfSamples(samples)), from: 'the tester', repairs: early });
    else setFault(faultWords(said) ?? 'The tester broke off: nothing of it was kept.');
  };
  const extend = async (watchS: number): Promise<void> => {
    const said = await askDevice('leak-tester', {
      ask: 'change trace',
      run: runId.current,
      seconds: watchS,
    });
    if (said.says === 'fault') setFault(faultWords(said));
    else {
      watch.current = watchS;
      // What was said of the shorter time is no longer true.
      setRunning((now) => now && { ...now, watchS, outlook: null });
    }
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
              {overBar === 0 ? capital(running.phase) : phaseWords(running)}
            </Typography>
            <Typography sx={{ fontVariantNumeric: 'tabular-nums', whiteSpace: 'nowrap' }}>
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
          {running.outlook && (
            <Stack direction="row" spacing={1.5} sx={{ alignItems: 'center', mb: 0.75 }}>
              <Typography role="status" aria-label="Whether the time will do" sx={{ flexGrow: 1 }}>
                {running.outlook.reasons.join(' ')}
              </Typography>
              {running.outlook.watchS !== null && !isVented(running.phase) && (
                <ExtendKey
                  watchS={running.outlook.watchS}
                  onExtend={() => void extend(running.outlook?.watchS ?? running.watchS)}
                />
              )}
            </Stack>
          )}
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
