import type * as AsOf from './asOf';

/** The marks are kept by a module of their own: each test has a fresh one. */
const fresh = (): typeof AsOf => {
  let made: typeof AsOf | undefined;
  jest.isolateModules(() => (made = jest.requireActual<typeof AsOf>('./asOf')));
  if (!made) throw new Error('No module.');
  return made;
};

describe('as the stream stands for the first time', () => {
  it.each([
    ['nothing is missed where all was read since the last telling', ['a-3', 'a-3'], true],
    ['something may be missed where a reading is older', ['a-2', 'a-3'], false],
    ['or another server answered', ['b-3'], false],
    ['or one failed', ['a-3', null], false],
    ['or nothing was read', [], false],
  ])('%s', (_, marks, missedNothing) => {
    const { noteReading, standsAt } = fresh();
    for (const mark of marks) noteReading(mark);
    expect(standsAt('a-3')).toBe(missedNothing);
  });
});

describe('as it stands again', () => {
  it.each([
    ['nothing is missed where nothing was told meanwhile', 'a-5', [], true],
    ['something is where the server told more', 'a-6', [], false],
    ['or is another one', 'b-0', [], false],
    ['or a reading failed meanwhile', 'a-5', [null], false],
  ])('%s', (_, mark, readings, missedNothing) => {
    const { noteNews, noteReading, standsAt } = fresh();
    noteReading('a-3');
    expect(standsAt('a-3')).toBe(true);
    noteNews('a-4');
    noteNews('a-5');
    for (const each of readings) noteReading(each);
    expect(standsAt(mark)).toBe(missedNothing);
  });
});

it('an answer that was on its way as the stream stood, and is older, is stale', () => {
  const { noteReading, onStaleReading, standsAt } = fresh();
  const stale = jest.fn();
  onStaleReading(stale);
  noteReading('a-3');
  standsAt('a-5');
  noteReading('a-5');
  noteReading('a-6');
  expect(stale).not.toHaveBeenCalled();
  noteReading('a-4');
  expect(stale).toHaveBeenCalledTimes(1);
});
