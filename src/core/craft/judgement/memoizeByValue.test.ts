import { memoizeByValue } from './memoizeByValue';

describe('what was worked out before', () => {
  const asked: unknown[] = [];
  const { ask: answer, keep } = memoizeByValue((question: { readonly value: number | null | string }) => {
    asked.push(question.value);
    return { of: question.value };
  }, 2);
  beforeEach(() => void (asked.length = 0));

  it('is not worked out again for the same question, whoever asks it', () => {
    const first = answer({ value: 1 });
    expect(answer({ value: 1 })).toBe(first);
    expect(asked).toEqual([1]);
  });

  it('is another for what is no number, nothing, or a word', () => {
    expect([answer({ value: Number.NaN }), answer({ value: null }), answer({ value: Infinity })]).toEqual([
      { of: Number.NaN },
      { of: null },
      { of: Infinity },
    ]);
  });

  it('may have been worked out elsewhere', () => {
    keep({ value: 'there' }, { of: 'kept' });
    expect(answer({ value: 'there' })).toEqual({ of: 'kept' });
    expect(asked).toEqual([]);
  });

  it('is forgotten once as many others were asked', () => {
    for (const value of [5, 6, 7, 5]) answer({ value });
    expect(asked).toEqual([5, 6, 7, 5]);
  });
});
