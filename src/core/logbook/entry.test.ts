import { readyJob } from '../../testing/fixtures';
import { entryInWords, noFacts } from './entry';
describe('entryInWords', () => {
  it('names every entry of a job in a few words', () => {
    for (const entry of readyJob().entries) {
      expect(entryInWords(entry).length).toBeGreaterThan(3);
      expect(entryInWords(entry)).not.toMatch(/undefined|NaN|null/);
    }
  });
});

describe('noFacts', () => {
  it('gives every job lists and maps of its own', () => {
    const [one, other] = [noFacts(), noFacts()];
    expect(one).toEqual(other);
    const held = (Object.keys(one) as (keyof typeof one)[]).filter(
      (name) => Array.isArray(one[name]) || one[name] instanceof Map || one[name] instanceof Set,
    );
    expect(held.length).toBeGreaterThan(10);
    for (const name of held) expect([name, one[name] === other[name]]).toEqual([name, false]);
    for (const name of Object.keys(one) as (keyof typeof one)[])
      if (!held.includes(name)) expect([name, Object(one[name]) === one[name]]).toEqual([name, false]);
  });
});
