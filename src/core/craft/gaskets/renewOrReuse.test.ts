import { renewOrReuse } from './renewOrReuse';
describe('gasket: renew or reuse', () => {
  const sound = {
    findings: [],
    ageYears: 2,
    ratingBar: 3,
    meetsWater: false,
    staysClosedYears: 2,
    chargesItself: false,
    worn: null,
    rule: 'inspect and decide',
  } as const;
  it('reuses a sound young ring away from water', () => {
    expect(renewOrReuse(sound).verdict).toBe('reuse');
    expect(renewOrReuse({ ...sound, findings: ['dry'] })).toMatchObject({
      verdict: 'reuse',
      reasons: [expect.stringContaining('dry')],
    });
  });
  it('says that it is not asked to keep water out only where somebody asked', () => {
    expect(renewOrReuse(sound).reasons.join(' ')).toContain('not asked to keep water out');
    const unasked = renewOrReuse({ ...sound, meetsWater: null }).reasons.join(' ');
    expect(unasked).not.toContain('not asked to keep');
    expect(unasked).toContain('nobody asked');
  });
  it('takes no doubt about a worn ring for a reason', () => {
    for (const verdict of ['cannot say', 'springy', 'measures disagree'] as const)
      expect(renewOrReuse({ ...sound, worn: { verdict, reasons: ['x'] } }).verdict).toBe('reuse');
  });
  it.each([
    ['rated 5 bar', { ratingBar: 5 }],
    ['near water', { meetsWater: true }],
    ['nicked', { findings: ['nicked'] as const }],
    ['over three years old', { ageYears: 3.2 }],
    ['of unknown age', { ageYears: null }],
    ['shut for long', { staysClosedYears: 4 }],
    ['never to be opened for years, since it charges itself', { chargesItself: true }],
    [
      'worn flat, as measured',
      { worn: { verdict: 'renew' as const, reasons: ['67 % of its squeeze stayed.'] } },
    ],
    ['painted over', { findings: ['painted over'] as const }],
    ['by the shop’s rule', { rule: 'renew at every opening' as const }],
  ])('renews when %s', (_, change) => {
    const advice = renewOrReuse({ ...sound, ...change });
    expect(advice.verdict).toBe('renew');
    expect(advice.reasons).toHaveLength(1);
  });
});
