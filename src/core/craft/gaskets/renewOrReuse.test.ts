import { isAsAdvised, renewOrReuse, ringContradictions } from './renewOrReuse';
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
    unknownAge: 'look at it',
  } as const;
  it('reuses a sound young ring away from water', () => {
    expect(renewOrReuse(sound).verdict).toBe('reuse');
    expect(renewOrReuse({ ...sound, findings: ['dry'] })).toMatchObject({
      verdict: 'reuse',
      reasons: [expect.stringContaining('dry')],
    });
  });
  it('says that it is not needed to keep water out only where somebody asked', () => {
    expect(renewOrReuse(sound).reasons.join(' ')).toContain('not needed to keep water out');
    const unasked = renewOrReuse({ ...sound, meetsWater: null }).reasons.join(' ');
    expect(unasked).not.toContain('not needed to keep');
    expect(unasked).toContain('is not recorded');
  });
  it('reuses one measured springy, and none of which it cannot be said how worn it is', () => {
    const worn = (verdict: 'springy' | 'cannot say' | 'measures disagree') =>
      renewOrReuse({ ...sound, worn: { verdict, reasons: ['x'] } }).verdict;
    expect(worn('springy')).toBe('reuse');
    expect(worn('cannot say')).toBe('renew');
    expect(worn('measures disagree')).toBe('renew');
  });
  it('has one of unknown age looked at, by its own signs, unless the shop renews such', () => {
    const unknown = { ...sound, ageYears: null };
    const advice = renewOrReuse(unknown);
    expect(advice.verdict).toBe('look at it');
    expect(advice.reasons.join(' ')).toContain('supple, round and whole');
    for (const done of ['renewed', 'reused', 'none there'] as const)
      expect(isAsAdvised(done, advice)).toBe(true);
    expect(isAsAdvised('left in place', advice)).toBe(false);
    expect(renewOrReuse({ ...unknown, unknownAge: 'renew' }).verdict).toBe('renew');
    expect(renewOrReuse({ ...unknown, findings: ['hard'] }).verdict).toBe('renew');
    expect(renewOrReuse({ ...unknown, worn: { verdict: 'springy', reasons: [] } })).toMatchObject({
      verdict: 'reuse',
      reasons: [expect.stringContaining('springy')],
    });
  });
  it('says of no ring that it was found or greased', () => {
    const none = { state: 'none there', findings: [], greased: false } as const;
    expect(ringContradictions(none)).toEqual([]);
    expect(ringContradictions({ ...none, greased: true })).toHaveLength(1);
    expect(ringContradictions({ ...none, findings: ['hard'] })).toHaveLength(1);
  });
  it.each([
    ['rated 5 bar', { ratingBar: 5 }],
    ['near water', { meetsWater: true }],
    ['nicked', { findings: ['nicked'] as const }],
    ['over three years old', { ageYears: 3.2 }],
    ['of unknown age, where the shop renews such', { ageYears: null, unknownAge: 'renew' as const }],
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
