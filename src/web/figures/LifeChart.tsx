import { memo } from 'react';
import { Box, Typography } from '@mui/material';
import { BarElement, CategoryScale, Chart, LinearScale, Tooltip } from 'chart.js';
import { Bar } from 'react-chartjs-2';
import { figure } from '../../core/craft/judgement';
import type { LifeForecast } from '../../core/craft/life';
import { usePalette } from '../kit/theme';

Chart.register(BarElement, CategoryScale, LinearScale, Tooltip);

type Forecast = Extract<LifeForecast, { verdict: 'forecast' }>;

/** Stands in the chart’s place until there is a forecast, so that nothing moves when it comes. */
const NONE = { bars: { shares: [], monthsEach: 1 }, p10Months: 0, p50Months: 0, p90Months: 0 };

/** How the draws of a forecast are spread over the months; what ends before the early end stands apart. */
export default memo(function LifeChart({
  life,
  title,
}: {
  readonly life: Forecast | null;
  readonly title: string;
}) {
  const palette = usePalette();
  const { bars, p10Months, p50Months, p90Months } = life ?? NONE;
  const until = bars.shares.map((_, index) => (index + 1) * bars.monthsEach);
  return (
    <>
      <Box sx={{ height: 170, position: 'relative' }}>
        <Bar
          role="img"
          aria-label={
            life === null
              ? `${title}: no forecast yet`
              : `${title}: one in ten ends before ${figure(p10Months, 0)} months, half before ${figure(p50Months, 0)}, nine in ten before ${figure(p90Months, 0)}`
          }
          data={{
            labels: until.map((months) => figure(months, 0)),
            datasets: [
              {
                label: 'of the draws, %',
                data: bars.shares.map((share) => share * 100),
                backgroundColor: until.map((months) =>
                  months <= p10Months
                    ? palette.cinnabar
                    : months <= p90Months
                      ? palette.verdigris
                      : palette.smoke,
                ),
                categoryPercentage: 1,
                barPercentage: 0.92,
              },
            ],
          }}
          options={{
            maintainAspectRatio: false,
            animation: false,
            scales: {
              y: { display: false, beginAtZero: true },
              x: {
                grid: { display: false },
                title: { display: true, text: 'months', color: palette.soot },
                // Level and sampled, so that not every label is measured before the first is drawn.
                ticks: { color: palette.soot, maxTicksLimit: 9, maxRotation: 0, sampleSize: 9 },
              },
            },
          }}
        />
      </Box>
      <Typography variant="body2">Red: before the early end (P10), one in ten. Grey: after P90.</Typography>
    </>
  );
});
