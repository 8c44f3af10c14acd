import { setTimeout as pause } from 'node:timers/promises';
import type { Driver } from '../../../contract';
import { isVented, phaseAt, simulateTrace, type TraceSample } from '../../../core/craft/devices';
import type { World } from './world';

/** Samples come in handfuls where a test runs much faster than the clock. */
const MOST_A_SECOND = 60;

export const leakTester: Driver<'leak-tester-stand-in', World> = {
  async *ask(asked, settings, { seed }) {
    const { gross, leakUgPerMin, settlesPercent, speed, leaksAt, leakSide } = settings;
    if (asked.ask === 'tank') {
      const leaks = gross === 'yes' || leakUgPerMin !== null;
      yield await Promise.resolve({
        says: 'bubbles',
        at: leaks ? { side: leakSide, clock: leaksAt } : null,
        words: leaks ? 'Bubbles rise.' : 'Nothing rises.',
      });
      return;
    }
    if (asked.ask === 'change trace') {
      const running = runs.get(asked.run);
      const refused = whyNotChanged(running, asked.seconds);
      if (running === undefined || refused !== null) {
        yield await Promise.resolve({
          says: 'fault',
          words: refused ?? 'That test has already ended.',
          whatToDo: 'Run it again with the time you want.',
        });
        return;
      }
      if (asked.seconds === null) running.ends = true;
      else running.seconds = asked.seconds;
      yield {
        says: 'done',
        words: asked.seconds === null ? 'The test ends here.' : `It is watched for ${asked.seconds} s.`,
      };
      return;
    }
    if (asked.ask !== 'trace') return;
    const simulated = (seconds: number): TraceSample[] =>
      simulateTrace(
        { ...settings, settlesShare: settlesPercent / 100, gross: gross === 'yes', leakUgPerMin },
        asked.pressureBar,
        seconds,
        seed,
      );
    const running: Running = { seconds: asked.seconds, vented: false, ends: false };
    if (asked.run !== undefined) runs.set(asked.run, running);
    try {
      let [samples, seconds] = [simulated(asked.seconds), asked.seconds];
      const handful = Math.max(1, Math.round(speed / MOST_A_SECOND));
      let shown = 0;
      for (let i = 0; i < samples.length && !running.ends; i += 1) {
        if (running.seconds !== seconds && !running.vented) {
          // The same seed shows the same up to here, and watches on from it.
          seconds = running.seconds;
          samples = simulated(seconds);
        }
        const sample = samples[i];
        if (sample === undefined) break;
        const phase = phaseAt(samples, i);
        running.vented ||= isVented(phase);
        yield { says: 'sample', sample, phase, ofS: samples.at(-1)?.atS ?? 0 };
        shown += 1;
        if (i % handful === 0) await pause((1000 * handful) / speed);
      }
      yield { says: 'trace', points: shown };
    } finally {
      if (asked.run !== undefined) runs.delete(asked.run);
    }
  },
};

/** A test that runs just now, as it is to go on. */
interface Running {
  seconds: number;
  vented: boolean;
  ends: boolean;
}
const runs = new Map<string, Running>();

/** Why a running test is not given another time; null where it is, or where it is to end. */
function whyNotChanged(running: Running | undefined, seconds: number | null): string | null {
  if (running === undefined || seconds === null) return null;
  if (running.vented) return 'The pressure has already been released.';
  return seconds > running.seconds
    ? null
    : `It already runs for ${running.seconds} s: a running test can only be given more time.`;
}
