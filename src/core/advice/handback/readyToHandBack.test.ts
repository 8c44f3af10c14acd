import { readyJob } from '../../../testing/fixtures';
import { signatureOf } from '../../../testing/admitted';
import { readyToHandBack } from './readyToHandBack';

const notReady = { verdict: 'not ready', reasons: ['No test.'], working: [] } as const;

it('is good where this counter signed or may sign, and is told where another one did', () => {
  const job = readyJob();
  expect(readyToHandBack(job.state(), { ...notReady, verdict: 'ready to sign', reasons: [] })).toMatchObject({
    answer: 'Ready to sign',
    isGood: true,
  });
  expect(readyToHandBack(job.state(), notReady)).toMatchObject({ isGood: false, reasons: ['No test.'] });
  job.add('handback.signed', signatureOf(job));
  expect(readyToHandBack(job.state(), notReady)).toEqual({ answer: 'Signed', isGood: true, reasons: [] });
  const signed = job.entries.pop();
  if (!signed) throw new Error('not signed');
  job.entries.push({ ...signed, counter: 'Saltmarsh Road' });
  expect(readyToHandBack(job.state(), notReady)).toEqual({
    answer: 'Signed elsewhere',
    isGood: false,
    reasons: ['At another counter, Saltmarsh Road: not checked in this shop.'],
  });
});
