import { Alert, Box, Button, LinearProgress, Stack, Typography } from '@mui/material';
import { lazy, Suspense } from 'react';
import { isVented, recordOfSamples } from '../../../core/craft/devices';
import { capital, figure } from '../../../core/craft/judgement';
import { type LeakSetting, NO_PRESSURE_BAR, pressureWords } from '../../../core/craft/tightness';
import type { KeptRecord } from '../../../core/logbook';
import { KeyCap } from '../../kit/KeyCap';
import { useKey } from '../../kit/keys/KeysProvider';
import { type Running, useTesterRun } from './useTesterRun';

const TraceFigure = lazy(() => import('../../figures/TraceFigure'));

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
  useKey('e', `Extend to ${figure(watchS, 0)} s`, onExtend);
  return (
    <Button variant="outlined" onClick={onExtend}>
      Extend to {figure(watchS, 0)} s
      <Box component="span" sx={{ ml: 1 }}>
        <KeyCap>e</KeyCap>
      </Box>
    </Button>
  );
}

/** What a tester does just now, with the pressure in its chamber as it is, not as it was set. */
function doesNow({ samples, phase, waiting, askedBar }: Running): string {
  const shown = samples.at(-1)?.overBar ?? 0;
  if (waiting !== null) return waiting;
  if (phase === null)
    return samples.length === 0
      ? 'Contacting the tester'
      : `The tester shows ${pressureWords(Number(shown.toFixed(2)))}`;
  if (askedBar === 0) return capital(phase);
  return `${capital(phase)}, ${Math.abs(shown) < NO_PRESSURE_BAR ? 'no pressure in the chamber' : pressureWords(Number(shown.toFixed(1)))}`;
}

interface NowProps {
  readonly running: Running;
  /** Whether the program steers the tester, and so can let its pressure off. */
  readonly steered: boolean;
  readonly onStop: () => void;
  readonly onExtend: (watchS: number) => void;
}

/** A test that runs: its curve as it comes, how far it is, whether the time will do, and ways to extend and to stop it. */
function TestNow({ running, steered, onStop, onExtend }: NowProps) {
  const { samples, ofS, outlook, phase } = running;
  const atS = samples.at(-1)?.atS ?? 0;
  return (
    <Box role="group" aria-label="The tester runs">
      <StopKey onStop={onStop} />
      <Stack direction="row" spacing={1.5} sx={{ alignItems: 'center' }}>
        <Typography role="status" sx={{ flexGrow: 1, fontWeight: 700 }}>
          {doesNow(running)}
        </Typography>
        <Typography sx={{ fontVariantNumeric: 'tabular-nums', whiteSpace: 'nowrap' }}>
          {figure(atS, 0)} {ofS === null ? 's' : `of ${figure(ofS, 0)} s`}
        </Typography>
        <Button variant="contained" color="error" onClick={onStop}>
          {steered ? 'Stop and release pressure' : 'Stop waiting'}
          <Box component="span" sx={{ ml: 1 }}>
            <KeyCap>x</KeyCap>
          </Box>
        </Button>
      </Stack>
      {!steered && (
        <Typography>
          Start and stop the test at the tester: {pressureWords(running.askedBar)}. This program cannot
          release its pressure.
        </Typography>
      )}
      <LinearProgress
        aria-label="How far the test is"
        sx={{ my: 0.75 }}
        {...(ofS === null
          ? { variant: 'indeterminate' as const }
          : { variant: 'determinate' as const, value: (100 * atS) / ofS })}
      />
      {outlook && (
        <Stack direction="row" spacing={1.5} sx={{ alignItems: 'center', mb: 0.75 }}>
          <Typography role="status" aria-label="Test duration" sx={{ flexGrow: 1 }}>
            {outlook.reasons.join(' ')}
          </Typography>
          {steered && outlook.watchS !== null && phase !== null && !isVented(phase) && (
            <ExtendKey watchS={outlook.watchS} onExtend={() => onExtend(outlook.watchS ?? running.watchS)} />
          )}
        </Stack>
      )}
      {samples.length > 0 && (
        <Suspense>
          <TraceFigure record={recordOfSamples(samples)} {...(ofS === null ? {} : { wholeS: ofS })} />
        </Suspense>
      )}
    </Box>
  );
}

/** Runs the connected tester, or takes the record of one that is started by hand. */
export function OnTester({
  overBar,
  seconds,
  action,
  refused = NOTHING_AGAINST,
  setting = null,
  onRecord,
}: Props) {
  const { connected, steered, running, fault, run, extend, stop } = useTesterRun(setting, onRecord);
  if (!connected) return null;
  const figures = overBar !== null && seconds !== null && seconds >= 20;
  const ready = figures && refused.length === 0;
  return (
    <Stack spacing={1}>
      {running === null ? (
        <Stack direction="row" spacing={1.5} sx={{ alignItems: 'center' }}>
          <Button
            variant="outlined"
            disabled={!ready}
            onClick={() => void (figures && run(overBar, seconds))}
          >
            {steered ? action : 'Take the record from the tester'}
          </Button>
          {!ready && (
            <Typography variant="body2" color="text.secondary">
              {figures
                ? `Not run: ${refused.join(' ')}`
                : 'Enter pressure and duration first (at least 20 s).'}
            </Typography>
          )}
        </Stack>
      ) : (
        <TestNow
          running={running}
          steered={steered}
          onStop={stop}
          onExtend={(watchS) => void extend(watchS)}
        />
      )}
      {fault && <Alert severity="warning">{fault}</Alert>}
    </Stack>
  );
}
