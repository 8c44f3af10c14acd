import { completePolicy, DEFAULT_POLICY, type Policy, priceInList, WEEKDAYS } from './policy';
import { type Requirement, REQUIREMENTS, SERVICES } from './services';
import { STAGE_WORDS, STAGES } from './stages';
import { SCHOOL_IDS, SCHOOLS, USUAL_SCHOOLS, waysOf, wayTaken } from './schools';
import fc from 'fast-check';
describe('the schools of the craft', () => {
  it.each(SCHOOL_IDS)(
    '%s: at least two ways, each with what speaks for it, and the usual one among them',
    (school) => {
      const ways = waysOf(school) as string[];
      expect(ways.length).toBeGreaterThanOrEqual(2);
      expect(ways).toContain(SCHOOLS[school].usual);
      expect(SCHOOLS[school].question).toMatch(/^[A-Z][^!?]{8,}$/);
      for (const way of ways) {
        const taken = wayTaken({ ...USUAL_SCHOOLS, [school]: way }, school);
        expect(taken.way).toBe(way);
        expect(taken.reason).toMatch(/^[A-Z][^!]{15,}\.$/);
      }
    },
  );

  it('say nothing of a way nobody knows', () => {
    expect(wayTaken({ ...USUAL_SCHOOLS, gasket: 'never' as never }, 'gasket')).toEqual({
      way: 'never',
      reason: '',
    });
  });
});

describe('what a service asks for', () => {
  it('names every fact by its stage, in words that read on', () => {
    for (const requirement of Object.keys(REQUIREMENTS) as Requirement[]) {
      const { stage, words } = REQUIREMENTS[requirement];
      expect(STAGES).toContain(stage);
      expect(requirement.startsWith(stage)).toBe(true);
      expect(words).toMatch(/^[a-z]/);
    }
  });

  it('keeps a cell-only job as short as it was', () => {
    expect(DEFAULT_POLICY.services['cell only'].requires).toHaveLength(15);
    for (const service of SERVICES)
      if (service !== 'cell and reseal')
        expect(DEFAULT_POLICY.services[service].requires.length).toBeLessThanOrEqual(15);
  });

  it('asks for a test only where one was ordered', () => {
    const tested = SERVICES.filter((service) =>
      DEFAULT_POLICY.services[service].requires.includes('test.made'),
    );
    expect(tested).toEqual(['reseal and test']);
  });
});

describe('a policy as it was stored', () => {
  const keys = Object.keys(DEFAULT_POLICY) as (keyof Policy)[];

  it('reads as it was written, once it is whole', () => {
    expect(completePolicy(DEFAULT_POLICY)).toEqual(DEFAULT_POLICY);
  });

  it('is whole whatever an older program left out, and keeps what it said', () => {
    fc.assert(
      fc.property(
        fc.subarray(keys),
        fc.subarray([...SERVICES]),
        fc.nat(9999),
        (kept, services, priceMinor) => {
          const stored = {
            ...Object.fromEntries(kept.map((key) => [key, DEFAULT_POLICY[key]])),
            services: Object.fromEntries(services.map((service) => [service, { requires: [], priceMinor }])),
          } as unknown as Policy;
          const read = completePolicy(stored);
          expect(Object.keys(read).sort()).toEqual([...keys].sort());
          for (const service of SERVICES) {
            expect(read.services[service]).toEqual(
              services.includes(service) ? { requires: [], priceMinor } : DEFAULT_POLICY.services[service],
            );
          }
          expect(Object.keys(read.schools).sort()).toEqual([...SCHOOL_IDS].sort());
          expect(Object.keys(read.hours).sort()).toEqual([...WEEKDAYS].sort());
        },
      ),
    );
  });

  it('finds a price by its item, whatever the shop calls it', () => {
    const words = { ...DEFAULT_POLICY.extras[7], item: 'new-circuit', what: 'E-block', priceMinor: 4100 };
    expect(priceInList({ extras: [words] }, 'new-circuit')).toBe(4100);
    expect(priceInList({ extras: [{ ...words, item: 'x', what: 'new-circuit' }] }, 'new-circuit')).toBeNull();
  });

  it('names the items of a price list that was stored without them', () => {
    const stored = [
      { what: 'new circuit', priceMinor: 4100 },
      { what: 'strap', priceMinor: 900 },
    ];
    const read = completePolicy({ extras: stored as unknown as Policy['extras'] });
    expect(read.extras).toEqual([
      { item: 'new-circuit', what: 'new circuit', priceMinor: 4100 },
      { item: 'line-2', what: 'strap', priceMinor: 900 },
    ]);
    expect(completePolicy(read)).toEqual(read);
  });

  it('knows the gasket rule of the first program', () => {
    expect(completePolicy({ gasketRule: 'renew at every opening' }).schools.gasket).toBe(
      'renew at every opening',
    );
    expect(completePolicy({ gasketRule: 'renew at every opening' })).not.toHaveProperty('gasketRule');
    const both = { gasketRule: 'renew at every opening', schools: USUAL_SCHOOLS } as const;
    expect(completePolicy(both).schools.gasket).toBe('inspect and decide');
  });
});

describe('policy', () => {
  it('asks only for facts of the nine stages, and of every service for a signed record’s least', () => {
    for (const service of SERVICES) {
      const { requires } = DEFAULT_POLICY.services[service];
      expect(requires).toEqual(expect.arrayContaining(['arrive.watch', 'arrive.complaint']));
      // Whoever opens a watch hears the owner's consent first and closes it last.
      if (requires.includes('open.back'))
        expect(requires).toEqual(expect.arrayContaining(['arrive.consent', 'seal.closed', 'set.runs']));
      // A cell out of its watch is settled.
      if (requires.includes('cell.fitted')) expect(requires).toContain('cell.old-settled');
      expect(new Set(requires).size).toBe(requires.length);
      for (const requirement of requires) expect(STAGES).toContain(REQUIREMENTS[requirement].stage);
    }
    expect(Object.keys(STAGE_WORDS)).toEqual([...STAGES]);
  });
});
