import Curve, { type CurveLimit } from './Curve';

interface Props {
  readonly title: string;
  readonly unit: string;
  /** Oldest first. */
  readonly points: readonly { readonly label: string; readonly value: number }[];
  /** A line the values are held against, such as the movement's limit. */
  readonly limit?: CurveLimit | null;
}

/** A few values over the visits of a watch, with the limit they are held against. */
export default function SmallChart({ title, unit, points, limit = null }: Props) {
  return (
    <Curve
      title={title}
      says={points.map(({ label, value }) => `${label}: ${value} ${unit}`).join('; ')}
      as="line"
      marked
      along={{ label: '', places: points.map(({ label }) => label) }}
      up={{ label: title, unit }}
      values={points.map(({ value }) => value)}
      limits={limit === null ? [] : [limit]}
    />
  );
}
