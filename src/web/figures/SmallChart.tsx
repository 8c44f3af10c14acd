import { Box, Typography } from '@mui/material';
import { CategoryScale, Chart, LinearScale, LineElement, PointElement, Tooltip } from 'chart.js';
import { Line } from 'react-chartjs-2';
import { figure } from '../../core/craft/judgement';
import { usePalette } from '../kit/theme';

Chart.register(CategoryScale, LinearScale, LineElement, PointElement, Tooltip);
Chart.defaults.font.family = '"Atkinson Hyperlegible", system-ui, sans-serif';
Chart.defaults.font.size = 14;

type Limit = NonNullable<Props['limit']>;

const limitsOf = (limit: Limit | null): number[] =>
  limit === null ? [] : limit.eitherWay ? [limit.value, -limit.value] : [limit.value];

/** A watch may gain or lose. */
const limitWords = ({ value, eitherWay }: Limit): string => `${eitherWay ? '±' : ''}${figure(value)}`;

interface Props {
  readonly title: string;
  readonly unit: string;
  /** Oldest first. */
  readonly points: readonly { readonly label: string; readonly value: number }[];
  /** A line the values are held against, such as the movement's limit. */
  readonly limit?: { readonly label: string; readonly value: number; readonly eitherWay?: boolean } | null;
}

/** A few values over the visits of a watch, with the limit they are held against. */
export default function SmallChart({ title, unit, points, limit = null }: Props) {
  const palette = usePalette();
  const said = points.map(({ label, value }) => `${label}: ${value} ${unit}`).join('; ');
  return (
    <>
      <Box sx={{ height: 190, position: 'relative' }}>
        <Line
          role="img"
          aria-label={`${title}. ${said}${limit ? `. ${limit.label}: ${limitWords(limit)} ${unit}` : ''}`}
          data={{
            labels: points.map(({ label }) => label),
            datasets: [
              {
                label: title,
                data: points.map(({ value }) => value),
                borderColor: palette.ink,
                backgroundColor: palette.ink,
                pointRadius: 5,
                borderWidth: 2,
              },
              ...limitsOf(limit).map((value) => ({
                label: limit?.label ?? '',
                data: points.map(() => value),
                borderColor: palette.cinnabar,
                borderDash: [6, 4],
                borderWidth: 2,
                pointRadius: points.length === 1 ? 3 : 0,
              })),
            ],
          }}
          options={{
            maintainAspectRatio: false,
            animation: false,
            color: palette.soot,
            scales: {
              y: {
                beginAtZero: true,
                title: { display: true, text: unit, color: palette.soot },
                ticks: { color: palette.soot },
                grid: { color: palette.thread },
              },
              x: { grid: { display: false }, ticks: { color: palette.soot } },
            },
          }}
        />
      </Box>
      {limit && (
        <Typography variant="body2">
          Dashed: {limit.label}, {limitWords(limit)} {unit}.
        </Typography>
      )}
    </>
  );
}
