import { memo } from 'react';
import { Box, TableCell, TableRow, Typography } from '@mui/material';
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  type ChartOptions,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { Chart as Drawn } from 'react-chartjs-2';
import { figure } from '../../core/craft/judgement';
import { DataTable } from '../kit/DataTable';
import { Fold } from '../kit/Fold';
import { usePalette } from '../kit/theme';

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
);
Chart.defaults.font.family = '"Atkinson Hyperlegible", system-ui, sans-serif';
Chart.defaults.font.size = 14;

/** What a value stands in: within what is expected, before or over what it should not pass, or beyond what matters. */
export type CurveRange = 'plain' | 'good' | 'no' | 'beyond';

export interface CurveLimit {
  readonly label: string;
  readonly value: number;
  /** The same on the other side of nought. */
  readonly eitherWay?: boolean;
}

export interface CurveProps {
  readonly title: string;
  /** What it shows, told to those who do not see it. */
  readonly says: string;
  readonly as: 'line' | 'bars';
  /** What stands below, and each place on it. */
  readonly along: { readonly label: string; readonly places: readonly string[] };
  readonly up: { readonly label: string; readonly unit: string };
  readonly values: readonly number[];
  /** The range of each bar; a line has one colour. */
  readonly ranges?: readonly CurveRange[];
  /** Points are marked where they were taken singly, and not along a trace. */
  readonly marked?: boolean;
  readonly limits?: readonly CurveLimit[];
  /** Within what it likely lies, at each place. */
  readonly band?: {
    readonly label: string;
    readonly low: readonly number[];
    readonly high: readonly number[];
  };
  readonly note?: string;
  readonly heightPx?: number;
}

const ends = ({ value, eitherWay = false }: CurveLimit): number[] => (eitherWay ? [value, -value] : [value]);

const limitWords = ({ value, eitherWay = false }: CurveLimit): string =>
  `${eitherWay ? '±' : ''}${figure(value)}`;

const NO_RANGES: readonly CurveRange[] = [];
const NO_LIMITS: readonly CurveLimit[] = [];

type Colours = ReturnType<typeof usePalette>;

/** Within what it likely lies, as two lines with a ground between them. */
function bandSets(band: CurveProps['band'], palette: Colours) {
  return band === undefined
    ? []
    : (['low', 'high'] as const).map((end) => ({
        type: 'line' as const,
        label: `${band.label}, ${end === 'low' ? 'least' : 'most'}`,
        data: [...band[end]],
        borderColor: palette.smoke,
        backgroundColor: `${palette.thread}99`,
        borderWidth: 1,
        pointRadius: 0,
        fill: end === 'high' ? '-1' : false,
      }));
}

function limitSets(limits: readonly CurveLimit[], places: number, palette: Colours) {
  return limits.flatMap((limit) =>
    ends(limit).map((value) => ({
      type: 'line' as const,
      label: limit.label,
      data: Array.from({ length: places }, () => value),
      borderColor: palette.cinnabar,
      borderDash: [6, 4],
      borderWidth: 2,
      pointRadius: places === 1 ? 3 : 0,
    })),
  );
}

function optionsOf(along: string, unit: string, palette: Colours): ChartOptions<'bar' | 'line'> {
  return {
    maintainAspectRatio: false,
    animation: false,
    color: palette.soot,
    scales: {
      y: {
        display: unit !== '',
        beginAtZero: true,
        title: { display: true, text: unit, color: palette.soot },
        ticks: { color: palette.soot },
        grid: { color: palette.thread },
      },
      x: {
        grid: { display: false },
        title: { display: along !== '', text: along, color: palette.soot },
        // Level and sampled, so that not every label is measured before the first is drawn.
        ticks: {
          color: palette.soot,
          maxTicksLimit: 9,
          maxRotation: 0,
          sampleSize: 9,
          autoSkipPadding: 14,
        },
      },
    },
  };
}

function AsTable({
  title,
  along,
  up,
  values,
  band,
}: Pick<CurveProps, 'title' | 'along' | 'up' | 'values' | 'band'>) {
  return (
    <Fold summary="As a table" sx={{ fontWeight: 400 }}>
      <DataTable
        label={`${title}, as a table`}
        heads={[along.label || 'When', up.label, ...(band ? [band.label] : [])]}
      >
        {values.map((value, index) => (
          <TableRow key={along.places[index] ?? index}>
            <TableCell>{along.places[index]}</TableCell>
            <TableCell>
              {figure(value)} {up.unit}
            </TableCell>
            {band && (
              <TableCell>
                {figure(band.low[index] ?? value)} to {figure(band.high[index] ?? value)} {up.unit}
              </TableCell>
            )}
          </TableRow>
        ))}
      </DataTable>
    </Fold>
  );
}

/** Values over time or months on axes, with their ranges and limits; the same as a table on demand. */
export default memo(function Curve({
  title,
  says,
  as,
  along,
  up,
  values,
  ranges = NO_RANGES,
  marked = false,
  limits = NO_LIMITS,
  band,
  note,
  heightPx = 180,
}: CurveProps) {
  const palette = usePalette();
  const toneOf: Readonly<Record<CurveRange, string>> = {
    plain: palette.ink,
    good: palette.verdigris,
    no: palette.cinnabar,
    beyond: palette.smoke,
  };
  const tones = values.map((_, index) => toneOf[ranges[index] ?? 'plain']);
  const limitsInWords = limits.map((limit) => `${limit.label}: ${limitWords(limit)} ${up.unit}`);
  return (
    <Box component="figure" sx={{ m: 0 }}>
      <Box sx={{ height: heightPx, position: 'relative', overflow: 'hidden' }}>
        <Drawn
          type={as === 'line' ? 'line' : 'bar'}
          role="img"
          aria-label={[title, says, ...limitsInWords].join('. ')}
          data={{
            labels: [...along.places],
            datasets: [
              {
                label: up.label,
                data: [...values],
                ...(as === 'line'
                  ? {
                      borderColor: palette.ink,
                      backgroundColor: palette.ink,
                      borderWidth: 2,
                      pointRadius: marked ? 5 : 0,
                    }
                  : { backgroundColor: tones, categoryPercentage: 1, barPercentage: 0.92 }),
              },
              ...bandSets(band, palette),
              ...limitSets(limits, values.length, palette),
            ],
          }}
          options={optionsOf(along.label, up.unit, palette)}
        />
      </Box>
      <Typography component="figcaption" variant="body2">
        {band && `Grey: ${band.label}. `}
        {limits.map((limit) => `Dashed: ${limit.label}, ${limitWords(limit)} ${up.unit}. `)}
        {note}
      </Typography>
      <AsTable title={title} along={along} up={up} values={values} band={band} />
    </Box>
  );
});
