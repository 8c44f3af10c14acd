import fc from 'fast-check';
import { tools } from '../../../../demo/tools';
import { BACK_KINDS } from '../cases';
import { NO_TOOLS, TOOL_JUDGES, type ToolBodies, type ToolKind, toolsFor } from './tools';
import { paidBack, payback, usualCostMinor } from './payback';
const judge = <K extends ToolKind>(kind: K, body: ToolBodies[K]) => TOOL_JUDGES[kind](body);

describe('whether a tool pays', () => {
  const ask = {
    toolCostMinor: 14_500,
    priceMinor: 2_600,
    ownCostMinor: 700,
    referralMarginMinor: 400,
    jobsPerMonth: 2.5,
  };
  it('tells jobs and months until it has paid for itself', () => {
    // 26.00 − 7.00 − 4.00 = 15.00 a job; 145.00 / 15.00 → 10 jobs; 10 / 2.5 = 4 months.
    expect(payback(ask)).toMatchObject({ verdict: 'pays', gainMinor: 1_500, jobs: 10, months: 4 });
    expect(payback(ask).working.map(({ figures }) => figures)).toEqual([
      '26.00 − 7.00 − 4.00 = 15.00',
      '145.00 ÷ 15.00 → 10; 10 ÷ 2.5 = 4 months',
    ]);
  });
  it('never, where a job earns nothing over referring it', () => {
    expect(payback({ ...ask, referralMarginMinor: 1_900 })).toMatchObject({ verdict: 'never', jobs: null });
    expect(payback({ ...ask, ownCostMinor: 2_600 })).toMatchObject({ verdict: 'never', gainMinor: -400 });
  });
  it('not at this rate, where no job asks for it', () => {
    expect(payback({ ...ask, jobsPerMonth: 0 })).toMatchObject({
      verdict: 'not at this rate',
      jobs: 10,
      months: null,
    });
  });
  it('the jobs it takes bring back the cost, and one less does not', () => {
    const sum = fc.integer({ min: 0, max: 50_000 });
    fc.assert(
      fc.property(sum, sum, sum, sum, fc.integer({ min: 1, max: 40 }), (cost, price, own, margin, rate) => {
        const answer = payback({
          toolCostMinor: cost,
          priceMinor: price,
          ownCostMinor: own,
          referralMarginMinor: margin,
          jobsPerMonth: rate,
        });
        if (answer.jobs === null) return expect(price - own - margin).toBeLessThanOrEqual(0);
        expect(answer.jobs * answer.gainMinor).toBeGreaterThanOrEqual(cost);
        if (answer.jobs > 0) expect((answer.jobs - 1) * answer.gainMinor).toBeLessThan(cost);
        return undefined;
      }),
    );
  });
});

describe('how far a tool has paid', () => {
  it.each([
    [4_800, 8, 600, 'paid', 0],
    [4_800, 79, 600, 'paid', 42_600],
    [14_500, 8, 600, 'not yet', 9_700],
    [4_800, 8, -100, 'never', 4_800],
  ])('%i after %i jobs at %i: %s, %i', (costMinor, jobs, gainMinor, verdict, restMinor) => {
    expect(paidBack({ costMinor, jobs, gainMinor })).toMatchObject({ verdict, restMinor });
  });
  it('what such tools cost on average is asked of the shop’s own', () => {
    expect(usualCostMinor([{ costMinor: 1000 }, { costMinor: 1501 }])).toBe(1251);
    expect(usualCostMinor([])).toBeNull();
  });
});

describe('a tool that contradicts itself', () => {
  const first = <T>(list: readonly T[]): T => {
    const [one] = list;
    if (one === undefined) throw new Error('an empty board');
    return one;
  };
  const wrench = first(tools.wrenches);
  const die = first(tools.openerDies);
  const holder = first(tools.holders);
  const press = first(tools.pressDies);
  const ball = first(tools.balls);
  it.each<[ToolKind, object, string, RegExp]>([
    ['wrench', { ...wrench, travelMinMm: 30, travelMaxMm: 20 }, 'travelMaxMm', /30 mm to 20 mm/],
    ['wrench', { ...wrench, rearMaxMm: null }, 'rearMaxMm', /three jaws has a travel/],
    ['wrench', { ...wrench, jaws: 2 }, 'rearMaxMm', /no rear jaw/],
    ['wrench', { ...wrench, rearMinMm: 30, rearMaxMm: 20 }, 'rearMaxMm', /below its minimum/],
    ['wrench', { ...wrench, jawWidthsMm: [], pinDiametersMm: [] }, 'jawWidthsMm', /at least one jaw or pin/],
    ['wrench', { ...wrench, jawWidthsMm: [60] }, 'jawWidthsMm', /60 mm is over the travel of 27 mm/],
    ['openerDie', { ...die, shank: null }, 'shank', /needs a shank/],
    ['openerDie', { ...die, form: 'key' }, 'shank', /its own handle/],
    ['holder', { ...holder, shank: null }, 'shank', /needs a shank/],
    ['holder', { ...holder, holds: 'the case' }, 'shank', /Only a holder for dies/],
    ['holder', { ...holder, fromMm: 40, toMm: 20 }, 'toMm', /below the minimum/],
    ['pressDie', { ...press, innerMm: 40 }, 'innerMm', /not less than outside/],
    ['pressDie', { ...press, innerMm: null, recessMm: 2 }, 'recessMm', /no recess/],
    ['ball', { ...ball, backFromMm: 50 }, 'backToMm', /smaller than the smallest/],
  ])('%s %#: says which measure is at odds', (kind, body, path, words) => {
    const problems = judge(kind, body as ToolBodies[typeof kind]);
    expect(problems.map((each) => each.path)).toContain(path);
    expect(problems.map((each) => each.reason).join(' ')).toMatch(words);
  });
});

describe('the tool board', () => {
  it.each(BACK_KINDS)('%s: what such tools cost is asked of the right drawer', (kind) => {
    expect(toolsFor(kind, tools).length).toBeGreaterThan(0);
    expect(toolsFor(kind, NO_TOOLS)).toEqual([]);
  });
});
