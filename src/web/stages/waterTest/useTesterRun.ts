import { useEffect, useRef, useState } from 'react';
import { v7 } from 'uuid';
import type { DeviceSays } from '../../../contract';
import { recordOfSamples, type TracePhase, type TraceSample } from '../../../core/craft/devices';
import { figure } from '../../../core/craft/judgement';
import { condense, type LeakSetting, mayEnd, type TestOutlook } from '../../../core/craft/tightness';
import type { KeptRecord } from '../../../core/logbook';
import { askDevice, faultWords, useConnected } from '../../api/devices';
import { keptOf, readRecord } from './FromFile';
import { outlookBeside } from './leakWorker';

/** The screen is drawn anew so often at most, while a tester runs, ms. */
const DRAWN_EVERY_MS = 200;

/** What a run shows is worked out so often at most, in seconds of the test and ms of the clock. */
const [OUTLOOK_EACH_S, OUTLOOK_EACH_MS] = [5, 700];

export interface Running {
  /** What was asked for as it began, over the air outside. */
  readonly askedBar: number;
  readonly samples: readonly TraceSample[];
  /** Null where only the tester itself knows. */
  readonly phase: TracePhase | null;
  /** How long the whole test takes, s; null where only the tester itself knows. */
  readonly ofS: number | null;
  /** The watch under pressure, and again after venting, as it is set now, s. */
  readonly watchS: number;
  readonly outlook: TestOutlook | null;
  /** What it waits for just now; null while readings come. */
  readonly waiting: string | null;
}

/** What shows while a test runs whether its time will do, looked at now and then beside the page. */
function outlooks(
  setting: LeakSetting | null,
  onOutlook: (outlook: TestOutlook, atS: number) => void,
): (samples: readonly TraceSample[], watchS: number) => void {
  let [lookedMs, lookedS, looking] = [0, 0, false];
  return (samples, watchS) => {
    const atS = samples.at(-1)?.atS ?? 0;
    if (setting === null || looking) return;
    if (atS - lookedS < OUTLOOK_EACH_S || performance.now() - lookedMs < OUTLOOK_EACH_MS) return;
    [looking, lookedMs, lookedS] = [true, performance.now(), atS];
    void outlookBeside(condense(recordOfSamples(samples)), setting, watchS)
      .then(
        (outlook) => onOutlook(outlook, atS),
        () => undefined,
      )
      .finally(() => (looking = false));
  };
}

/** What a run ended with, as a record to keep; or why there is none. */
async function recordOf(
  said: DeviceSays,
  samples: readonly TraceSample[],
  parts: readonly string[],
  early: readonly string[],
): Promise<KeptRecord | string> {
  if (said.says === 'trace')
    return { ...condense(recordOfSamples(samples)), from: 'the tester', repairs: early };
  if (said.says !== 'record') return faultWords(said) ?? 'The tester stopped. Nothing was recorded.';
  const reading = await readRecord(new Blob([...parts]), () => undefined);
  return reading.verdict === 'read'
    ? keptOf(reading, said.name)
    : [...reading.reasons, reading.whatToDo].join(' ');
}

/**
 * A run of the connected tester. One that the program steers is given more time and ended early from here; of any other the
 * record is only taken, and the technician starts and stops it.
 */
export function useTesterRun(setting: LeakSetting | null, onRecord: (record: KeptRecord) => void) {
  const connected = useConnected('leak-tester', 'trace');
  const steered = useConnected('leak-tester', 'change trace');
  const [running, setRunning] = useState<Running | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const current = useRef({ id: '', watchS: 0, stop: new AbortController() });
  useEffect(() => () => current.current.stop.abort(), []);

  const change = (part: Partial<Running>): void => setRunning((now) => now && { ...now, ...part });
  const run = async (overBar: number, seconds: number): Promise<void> => {
    const own = { id: v7(), watchS: seconds, stop: new AbortController() };
    current.current = own;
    const samples: TraceSample[] = [];
    const parts: string[] = [];
    const seen: TestOutlook[] = [];
    let early: readonly string[] = [];
    let drawn = 0;
    setFault(null);
    setRunning({
      askedBar: overBar,
      samples: [],
      phase: null,
      ofS: null,
      watchS: seconds,
      outlook: null,
      waiting: null,
    });
    const look = outlooks(setting, (outlook, atS) => {
      if (current.current !== own) return;
      change({ outlook });
      seen.push(outlook);
      if (!steered || !mayEnd(seen)) return;
      early = [`The test ended early, at ${figure(atS, 0)} s, because its result was certain.`];
      void askDevice('leak-tester', { ask: 'change trace', run: own.id, seconds: null });
    });
    const said = await askDevice(
      'leak-tester',
      { ask: 'trace', pressureBar: overBar, seconds, run: own.id },
      (says) => {
        if (says.says === 'waiting') change({ waiting: says.words });
        if (says.says === 'record part') parts.push(says.text);
        if (says.says !== 'sample') return;
        samples.push(says.sample);
        look(samples, own.watchS);
        if (performance.now() - drawn < DRAWN_EVERY_MS) return;
        drawn = performance.now();
        change({
          samples: [...samples],
          phase: says.phase,
          ofS: says.ofS,
          watchS: own.watchS,
          waiting: null,
        });
      },
      own.stop.signal,
    );
    const record = await recordOf(said, samples, parts, early);
    current.current = { ...own, id: '' };
    setRunning(null);
    if (typeof record === 'string') setFault(record);
    else onRecord(record);
  };
  const extend = async (watchS: number): Promise<void> => {
    const own = current.current;
    const said = await askDevice('leak-tester', { ask: 'change trace', run: own.id, seconds: watchS });
    if (said.says === 'fault') setFault(faultWords(said));
    else {
      own.watchS = watchS;
      // What was said of the shorter time is no longer true.
      change({ watchS, outlook: null });
    }
  };
  return { connected, steered, running, fault, run, extend, stop: () => current.current.stop.abort() };
}
