import { Logbook } from '../../testing/fixtures';
import { samples } from '../../testing/samples';
import { lyingOpen, openedBeside, openness } from './openness';

describe('how the case stands', () => {
  const how = (fill: (job: Logbook) => void) => {
    const job = new Logbook();
    fill(job);
    const { facts } = job.state();
    return [openness(facts), lyingOpen(facts) !== null];
  };

  it('was never opened where nobody recorded anything inside', () => {
    expect(
      how((job) => void job.add('check.pulses', { there: true, through: 'the closed watch', everyS: 1 })),
    ).toEqual(['never opened', false]);
  });

  it.each<[string, (job: Logbook) => unknown]>([
    ['its back came off', (job) => job.add('open.back', samples['open.back'])],
    ['a cell was seen in it', (job) => job.add('cell.found', { marking: '377', condition: 'clean' })],
    ['its place was seen empty', (job) => job.add('cell.found', { marking: null, condition: null })],
    ['its seals were counted', (job) => job.add('open.seals', samples['open.seals'])],
    ['its old ring was measured', (job) => job.add('seal.old-ring', samples['seal.old-ring'])],
    ['its cell went back', (job) => job.add('cell.put-back', samples['cell.put-back'])],
  ])('is open once %s, whether the opening was recorded or not', (_, fill) => {
    expect(how((job) => void fill(job))).toEqual(['open', true]);
    expect(
      how((job) => {
        fill(job);
        job.add('seal.closed', samples['seal.closed']);
      }),
    ).toEqual(['closed', false]);
  });
});

describe('two that lie open', () => {
  const [early, late] = ['2026-03-17T09:00:00.000Z', '2026-03-17T09:30:00.000Z'];
  it.each([
    ['55120', '', true],
    ['', '55120', false],
    ['', '', false],
    ['55120', '70333', true],
  ])('the first with “%s” inside, the second with “%s”: %s', (first, second, beside) => {
    const one = { sinceUtc: early, insideSerial: first };
    const other = { sinceUtc: late, insideSerial: second };
    expect(openedBeside(one, other)).toBe(beside);
    expect(openedBeside(other, one)).toBe(beside);
  });
});
