import fc from 'fast-check';
import { admit } from '../../testing/admitted';
import { lot, takenIn } from '../../testing/fixtures';
import { SAMPLE_KINDS, samples } from '../../testing/samples';

describe('a place the movement has not', () => {
  it('takes no fact of any kind, whatever it is called and whatever the movement', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...SAMPLE_KINDS),
        fc.string({ minLength: 1, maxLength: 40 }),
        fc.constantFrom(null, 'orrelin-41-2', 'quillbeck-22-4'),
        fc.boolean(),
        (kind, well, calibre, answer) => {
          const job = takenIn('diagnose', calibre);
          if (answer && calibre === null) job.add('cell.places', { first: 'hands', second: 'display' });
          fc.pre(job.state().wells.every(({ name }) => name !== well));
          expect(admit(job, () => job.add(kind, samples[kind], { well }), [lot]).verdict).toBe('refused');
        },
      ),
      { numRuns: 150 },
    );
  });
});
