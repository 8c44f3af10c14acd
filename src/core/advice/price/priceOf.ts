import { money } from '../../craft/money';
import type { Judged } from '../../craft/judgement';
import type { JobState } from '../../logbook';
export type PriceVerdict = Judged<'as agreed' | 'over what was agreed' | 'cannot say'> & {
  readonly priceMinor: number;
  /** The most the owner agreed to so far. */
  readonly agreedMinor: number;
};

/**
 * What the job costs, in minor units: the service and what was estimated beyond it, or what is charged instead
 * where someone decided so. It may never be more than the owner agreed to: the estimate, or the highest later
 * agreement. A sum that is no number: *cannot say*.
 */
export function priceOf({ facts }: Pick<JobState, 'facts'>, currency: string): PriceVerdict {
  const service = facts.service?.payload;
  const lines = [
    ...(service ? [{ what: service.service, priceMinor: service.priceMinor }] : []),
    ...(facts.estimate?.payload.lines ?? []),
  ];
  const estimatedMinor = lines.reduce((sum, line) => sum + line.priceMinor, 0);
  const agreedMinor = Math.max(
    estimatedMinor,
    ...facts.agreements.map((agreement) => agreement.payload.upToMinor ?? 0),
  );
  const priceMinor = facts.price?.payload.priceMinor ?? estimatedMinor;
  if (!(Number.isFinite(priceMinor) && Number.isFinite(agreedMinor)))
    return {
      verdict: 'cannot say',
      priceMinor: 0,
      agreedMinor: 0,
      reasons: [
        'A price of this job is not a number. Correct the service, the estimate, the agreement or the charge.',
      ],
      working: [],
    };
  const over = priceMinor > agreedMinor;
  return {
    verdict: over ? 'over what was agreed' : 'as agreed',
    priceMinor,
    agreedMinor,
    reasons: over
      ? [
          `${money(priceMinor, currency)} is charged, but ${money(agreedMinor, currency)} was agreed. Record the owner’s agreement or lower the charge.`,
        ]
      : facts.price
        ? [`Charged: ${facts.price.payload.reason}.`]
        : [],
    working: [
      {
        what: 'price',
        rule: facts.price ? 'charge with its reason' : 'service + estimate for extra work',
        figures: `${lines.map((line) => `${line.what} ${money(line.priceMinor, currency)}`).join(' + ') || 'nothing'} = ${money(estimatedMinor, currency)}`,
        source: 'the shop’s price list',
      },
    ],
  };
}
