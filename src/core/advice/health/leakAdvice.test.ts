import { book, Logbook } from '../../../testing/fixtures';
import { DEFAULT_POLICY } from '../../craft/policy';
import { leakAdviceOf } from './leakAdvice';
describe('after a leak', () => {
  it('goes by the gravest leak of a job and the last current after, priced from the list', () => {
    const job = new Logbook();
    expect(leakAdviceOf(job.state(), book, DEFAULT_POLICY)).toBeNull();
    const leak = {
      place: 'contact',
      xMm: null,
      yMm: null,
      treated: '',
      decision: 'not decided yet',
      supplier: '',
      lotCode: '',
      currentBeforeUA: null,
    } as const;
    job.add('check.leakage', { ...leak, severity: 'broken track', currentAfterUA: 9 });
    job.add('check.leakage', { ...leak, severity: 'bloom', currentAfterUA: 1.1 });
    const advice = leakAdviceOf(job.state(), book, {
      extras: [{ item: 'new-circuit', what: 'a circuit, fitted', priceMinor: 4100 }],
    });
    expect(advice).toMatchObject({ verdict: 'new circuit', working: [{ figures: '1.1 µA' }] });
    expect(advice?.options.map(({ priceMinor }) => priceMinor)).toEqual([null, 4100, null]);
  });

  it.each([
    ['silver oxide', ['SR621SW'], 'Use a trace of weak acid'],
    ['alkaline', ['LR621'], 'Use a trace of weak acid'],
    ['what cannot be read', ['QX1620'], 'is not known: use no acid'],
    ['nothing read yet', [], 'is not known: use no acid'],
    ['an accumulator', ['MT621'], 'Accumulator: use no acid'],
    ['lithium', ['CR2016'], 'Lithium: use no acid'],
  ] as const)('cleans after %s as its chemistry wants it', (_, markings, care) => {
    const job = new Logbook();
    for (const marking of markings) job.add('cell.found', { marking, condition: 'crust' });
    job.add('check.leakage', {
      place: 'contact',
      severity: 'crust',
      xMm: null,
      yMm: null,
      treated: '',
      decision: 'not decided yet',
      supplier: '',
      lotCode: '',
      currentBeforeUA: null,
      currentAfterUA: null,
    });
    expect(leakAdviceOf(job.state(), book, DEFAULT_POLICY)?.care).toContain(care);
  });
});
