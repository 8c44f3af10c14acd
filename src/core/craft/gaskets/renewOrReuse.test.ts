import { renewOrReuse } from './renewOrReuse';
describe('gasket: renew or reuse', () => {
  const sound = {
    findings: [],
    ageYears: 2,
    ratingBar: 3,
    meetsWater: false,
    staysClosedYears: 2,
    rule: 'inspect and decide',
  } as const;
  it('reuses a sound young ring away from water', () => {
    expect(renewOrReuse(sound).verdict).toBe('reuse');
    expect(renewOrReuse({ ...sound, findings: ['dry'] })).toMatchObject({
      verdict: 'reuse',
      reasons: [expect.stringContaining('dry')],
    });
  });
  it.each([
    ['rated 5 bar', { ratingBar: 5 }],
    ['near water', { meetsWater: true }],
    ['nicked', { findings: ['nicked'] as const }],
    ['over three years old', { ageYears: 3.2 }],
    ['of unknown age', { ageYears: null }],
    ['shut for long', { staysClosedYears: 4 }],
    ['by the shop’s rule', { rule: 'renew at every opening' as const }],
  ])('renews when %s', (_, change) => {
    const advice = renewOrReuse({ ...sound, ...change });
    expect(advice.verdict).toBe('renew');
    expect(advice.reasons).toHaveLength(1);
  });
});
