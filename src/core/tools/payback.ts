import { figure, type Judged } from '../judgement';

export type Payback = Judged<'pays' | 'never' | 'not at this rate'> & {
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
  /** What a job costs the shop: hands and material. */
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
  const gainMinor = priceMinor - ownCostMinor - referralMarginMinor;
  const sum = (minor: number): string => (minor / 100).toFixed(2).replace('-', '−');
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
      reasons: [`A job earns ${sum(gainMinor)} over referring it: no tool pays for itself so.`],
      working,
    };
  }
  const jobs = Math.ceil(toolCostMinor / gainMinor);
  const months = jobsPerMonth > 0 ? jobs / jobsPerMonth : null;
  const line = {
    what: 'jobs until it has paid',
    rule: 'tool cost ÷ gain, rounded up; months = jobs ÷ jobs a month',
    figures: `${sum(toolCostMinor)} ÷ ${sum(gainMinor)} → ${jobs}${months === null ? '' : `; ${jobs} ÷ ${figure(jobsPerMonth, 2)} = ${figure(months, 1)} months`}`,
  };
  return months === null
    ? {
        verdict: 'not at this rate',
        gainMinor,
        jobs,
        months,
        reasons: [`It takes ${jobs} jobs, and none has asked for it.`],
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
