import { figure } from '../../core/craft/judgement';
import { type LifeForecast, lifeWords } from '../../core/craft/life';
import Curve from './Curve';

type Forecast = Extract<LifeForecast, { verdict: 'forecast' }>;

/** Stands in the chart’s place until there is a forecast, so that nothing moves when it comes. */
const NONE = { bars: { shares: [], monthsEach: 1 }, p10Months: 0, p50Months: 0, p90Months: 0 };

/** How the draws of a forecast are spread over the months; what ends before the early end stands apart. */
export default function LifeChart({
  life,
  title,
}: {
  readonly life: Forecast | null;
  readonly title: string;
}) {
  const { bars, p10Months, p50Months, p90Months } = life ?? NONE;
  const until = bars.shares.map((_, index) => (index + 1) * bars.monthsEach);
  return (
    <Curve
      title={title}
      says={
        life === null
          ? 'No forecast yet'
          : `One in ten ends before ${lifeWords(p10Months)}, half before ${lifeWords(p50Months)}, nine in ten before ${lifeWords(p90Months)}`
      }
      as="bars"
      along={{ label: 'months', places: until.map((months) => figure(months, 0)) }}
      up={{ label: 'of the draws', unit: '%' }}
      values={bars.shares.map((share) => share * 100)}
      ranges={until.map((months) => (months <= p10Months ? 'no' : months <= p90Months ? 'good' : 'beyond'))}
      note="Red: the earliest tenth (before P10). Grey: the latest tenth (after P90)."
    />
  );
}
