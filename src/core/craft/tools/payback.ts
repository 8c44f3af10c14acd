import { amount } from '../money';
import { figure, type Judged, invalidFigures } from '../judgement';
import type { Policy } from '../policy';

export type Payback = Judged<'pays' | 'never' | 'not at this rate' | 'cannot say'> & {
  /** What one job earns over referring it, in minor units. */
  readonly gainMinor: number;
  /** Jobs until the tool has paid for itself. */
  readonly jobs: number | null;
  readonly months: number | null;
};

interface PaybackQuestion {
  readonly toolCostMinor: number;
  /** What a job costs the owner, without tax. */
  readonly priceMinor: number;
  /** What a job costs the shop: labour and material. */
  readonly ownCostMinor: number;
  /** What the shop keeps when it refers the watch instead. */
  readonly referralMarginMinor: number;
  readonly jobsPerMonth: number;
}

/**
 * Does it pay to buy a tool? gain = price − own cost − referral margin; jobs = tool cost / gain, rounded up;
 * months = jobs / jobs a month. A gain of nothing or less never pays; nor does a tool no job asks for. All sums in
 * minor units, without tax. Source: the craft's own arithmetic.
 */
export function payback(question: PaybackQuestion): Payback {
  const { toolCostMinor, priceMinor, ownCostMinor, referralMarginMinor, jobsPerMonth } = question;
  const wrong = invalidFigures([
    { path: 'toolCostMinor', what: 'Tool price', value: toolCostMinor, unit: '', from: 0 },
    { path: 'priceMinor', what: 'The price of a job', value: priceMinor, unit: '', from: 0 },
    { path: 'ownCostMinor', what: 'Own cost of a job', value: ownCostMinor, unit: '', from: 0 },
    {
      path: 'referralMarginMinor',
      what: 'Referral margin',
      value: referralMarginMinor,
      unit: '',
      from: 0,
    },
    { path: 'jobsPerMonth', what: 'Jobs a month', value: jobsPerMonth, unit: '', from: 0 },
  ]);
  if (wrong.length > 0)
    return {
      verdict: 'cannot say',
      gainMinor: 0,
      jobs: null,
      months: null,
      reasons: wrong.map(({ reason }) => reason),
      working: [],
    };
  const gainMinor = priceMinor - ownCostMinor - referralMarginMinor;
  const sum = (minor: number): string => amount(minor);
  const working = [
    {
      what: 'gain a job',
      rule: 'price − own cost − referral margin, without tax',
      figures: `${sum(priceMinor)} − ${sum(ownCostMinor)} − ${sum(referralMarginMinor)} = ${sum(gainMinor)}`,
    },
  ];
  if (gainMinor <= 0) {
    return {
      verdict: 'never',
      gainMinor,
      jobs: null,
      months: null,
      reasons: [`A job earns ${sum(gainMinor)} more than a referral, so no tool can pay for itself.`],
      working,
    };
  }
  const jobs = Math.ceil(toolCostMinor / gainMinor);
  const months = jobsPerMonth > 0 ? jobs / jobsPerMonth : null;
  const line = {
    what: 'jobs until payback',
    rule: 'tool cost ÷ gain, rounded up; months = jobs ÷ jobs a month',
    figures: `${sum(toolCostMinor)} ÷ ${sum(gainMinor)} → ${jobs}${months === null ? '' : `; ${jobs} ÷ ${figure(jobsPerMonth, 2)} = ${figure(months, 1)} months`}`,
  };
  return months === null
    ? {
        verdict: 'not at this rate',
        gainMinor,
        jobs,
        months,
        reasons: [`It takes ${jobs} jobs, but no job has needed it.`],
        working: [...working, line],
      }
    : {
        verdict: 'pays',
        gainMinor,
        jobs,
        months,
        reasons: [
          `After ${jobs} jobs: ${figure(months, 1)} months at ${figure(jobsPerMonth, 2)} jobs a month.`,
        ],
        working: [...working, line],
      };
}

/** Whether a tool pays at this shop: by its policy, for a job of a price, asked for so many times in a year. */
export function paybackOfJob(
  policy: Pick<Policy, 'ownCostMinor' | 'referralMarginMinor'>,
  asked: Pick<PaybackQuestion, 'toolCostMinor' | 'priceMinor' | 'jobsPerMonth'>,
): Payback {
  const { ownCostMinor, referralMarginMinor } = policy;
  return payback({ ...asked, ownCostMinor, referralMarginMinor });
}

export type PaidBack = Judged<'paid' | 'not yet' | 'never' | 'cannot say'> & {
  /** What it earned beyond its cost, or what is still to come in, in minor units. */
  readonly restMinor: number;
};

/** How far a tool of this shop has paid for itself after the jobs it opened, each earning the same gain. */
export function paidBack(tool: {
  readonly costMinor: number;
  readonly jobs: number;
  readonly gainMinor: number;
}): PaidBack {
  const { costMinor, jobs, gainMinor } = tool;
  const wrong = invalidFigures([
    { path: 'costMinor', what: 'What the tool cost', value: costMinor, unit: '', from: 0 },
    { path: 'jobs', what: 'Jobs opened with it', value: jobs, unit: '', from: 0 },
    { path: 'gainMinor', what: 'Earnings of a job', value: gainMinor, unit: '' },
  ]);
  if (wrong.length > 0)
    return { verdict: 'cannot say', restMinor: 0, reasons: wrong.map(({ reason }) => reason), working: [] };
  const earnedMinor = Math.max(0, gainMinor) * jobs;
  return {
    verdict: gainMinor <= 0 ? 'never' : earnedMinor >= costMinor ? 'paid' : 'not yet',
    restMinor: Math.abs(earnedMinor - costMinor),
    reasons: [],
    working: [],
  };
}

/** What such tools of this shop cost on average, in minor units; null where it has none. */
export function usualCostMinor(tools: readonly { readonly costMinor: number }[]): number | null {
  const costs = tools.flatMap(({ costMinor }) => (costMinor >= 0 && costMinor < Infinity ? [costMinor] : []));
  return costs.length === 0 ? null : Math.round(costs.reduce((sum, cost) => sum + cost, 0) / costs.length);
}
