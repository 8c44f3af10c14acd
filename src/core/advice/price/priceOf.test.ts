import { takenIn } from '../../../testing/fixtures';
import type { Logbook } from '../../../testing/fixtures';
import { context, lot, readyJob } from '../../../testing/fixtures';
import { handback } from '../handback';
import { priceOf } from './priceOf';
const verdictOf = (job: Logbook) => handback(job.state(), [lot], context);

describe('what it costs', () => {
  const priced = (...lines: [string, number][]): Logbook => {
    const job = takenIn('cell only');
    job.add('arrive.estimate', { lines: lines.map(([what, priceMinor]) => ({ what, priceMinor })) });
    return job;
  };
  it('is the service and what was estimated beyond it', () => {
    expect(priceOf(priced(['case gasket', 600], ['spring bar', 150]).state(), 'EUR')).toMatchObject({
      verdict: 'as agreed',
      priceMinor: 2150,
    });
  });
  it('is never more than was agreed', () => {
    const job = readyJob();
    job.add('handback.price', { priceMinor: 5000, reason: 'new circuit' });
    expect(priceOf(job.state(), 'EUR').verdict).toBe('over what was agreed');
    expect(verdictOf(job)).toMatchObject({
      verdict: 'not ready',
      reasons: [expect.stringContaining('14.00 EUR was agreed')],
    });
    job.add('arrive.agreement', { what: 'new circuit', upToMinor: 6000, by: 'the owner', how: 'by phone' });
    expect(verdictOf(job)).toMatchObject({ verdict: 'ready to sign', statement: { priceMinor: 5000 } });
  });
  it('may be nothing, with its reason', () => {
    const job = priced(['case gasket', 600]);
    job.add('handback.price', { priceMinor: 0, reason: 'comeback, no charge' });
    expect(priceOf(job.state(), 'EUR')).toMatchObject({
      priceMinor: 0,
      reasons: ['Charged: comeback, no charge.'],
    });
  });
});
