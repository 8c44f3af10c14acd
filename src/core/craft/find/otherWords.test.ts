import { readFileSync } from 'node:fs';
import { isSearchedFor, OTHER_WORDS } from './otherWords';

describe('a form found by what it may be called', () => {
  it.each([
    ['Leakage', 'corros', true],
    ['Leakage', 'leak', true],
    ['Old ring, measured', 'gasket', true],
    ['Old ring, measured', 'seal old', true],
    ['Crown, pusher and crystal seals', 'glass', true],
    ['Crown, pusher and crystal seals', 'o-ring', true],
    ['Current, motor stopped', 'consumption', true],
    ['Marks on the watch', 'scratch', true],
    ['The cell put back', 'battery', true],
    ['Groove', '', true],
    ['Groove', 'battery', false],
    ['Motor pulses', 'glass', false],
    ['Originality', 'original zz', false],
    // The end of a word finds nothing: it would find half of the list.
    ['Leakage', 'kage', false],
  ])('%s by “%s”: %s', (name, typed, found) => {
    expect(isSearchedFor(name, typed)).toBe(found);
  });

  it('takes the words that stand in docs/words.md, and no others', () => {
    const [, listed = ''] = readFileSync('docs/words.md', 'utf8').split(
      '## Other words that the search takes',
    );
    expect([...listed.matchAll(/^- (.*)$/gm)].map(([, line]) => line)).toEqual(
      OTHER_WORDS.map((line) => line.join(', ')),
    );
  });
});
