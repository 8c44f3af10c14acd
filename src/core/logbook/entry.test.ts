import { readyJob } from '../../testing/fixtures';
import { entryInWords } from './entry';
describe('entryInWords', () => {
  it('names every entry of a job in a few words', () => {
    for (const entry of readyJob().entries) {
      expect(entryInWords(entry).length).toBeGreaterThan(3);
      expect(entryInWords(entry)).not.toMatch(/undefined|NaN|null/);
    }
  });
});
