import { Typography } from '@mui/material';
import { trendOf, type TrendLimit } from '../../core/craft/health';
import { capital } from '../../core/craft/judgement';
import SmallChart from './SmallChart';

interface Props {
  readonly title: string;
  readonly unit: string;
  /** Oldest first. */
  readonly points: readonly { readonly atUtc: string; readonly label: string; readonly value: number }[];
  readonly limit: TrendLimit | null;
}

/** A reading over the visits of a watch with its limit, and what the line through it says. */
export default function TrendChart({ title, unit, points, limit }: Props) {
  const trend = trendOf(points, limit, unit);
  return (
    <>
      <Typography aria-hidden sx={{ fontWeight: 700 }}>
        {title}, {unit}
      </Typography>
      <SmallChart title={title} unit={unit} points={points} limit={limit} />
      <Typography>
        {trend.verdict === 'too few visits' ? '' : `${capital(trend.verdict)}: `}
        {trend.reasons.join(' ')}
      </Typography>
    </>
  );
}
