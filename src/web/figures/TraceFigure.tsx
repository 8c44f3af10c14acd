import { memo } from 'react';
import { Box, TableCell, TableRow, Typography } from '@mui/material';
import {
  Chart,
  type ChartOptions,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { Chart as Drawn } from 'react-chartjs-2';
import { figure } from '../../core/craft/judgement';
import type { LeakRecord } from '../../core/craft/tightness';
import { DataTable } from '../kit/DataTable';
import { Fold } from '../kit/Fold';
import { usePalette } from '../kit/theme';

Chart.register(LineController, LineElement, PointElement, LinearScale, Tooltip);

interface Props {
  readonly record: LeakRecord;
  /** The whole test, s, where it still runs. */
  readonly wholeS?: number;
  /** What the fit makes of it, µm, beside it. */
  readonly fitUm?: readonly number[] | null;
  /** What is left over once the fit is taken off, µm: drawn in place of the trace. */
  readonly leftUm?: readonly number[] | null;
  readonly heightPx?: number;
}

/** So many points are as many as the width of the drawing shows. */
const DRAWN = 400;
/** So many rows tell a trace to those who read it as a table. */
const ROWS = 24;

function axesOf(
  wholeS: number | undefined,
  hasPressure: boolean,
  palette: ReturnType<typeof usePalette>,
): ChartOptions<'line'> {
  return {
    maintainAspectRatio: false,
    animation: false,
    normalized: true,
    parsing: false as const,
    color: palette.soot,
    scales: {
      x: {
        type: 'linear' as const,
        min: 0,
        ...(wholeS === undefined ? {} : { max: wholeS }),
        title: { display: true, text: 'seconds', color: palette.soot },
        ticks: { color: palette.soot, maxTicksLimit: 9 },
        grid: { display: false },
      },
      um: {
        position: 'left' as const,
        title: { display: true, text: 'µm', color: palette.soot },
        ticks: { color: palette.soot, maxTicksLimit: 6 },
        grid: { color: palette.thread },
      },
      bar: {
        display: hasPressure,
        position: 'right' as const,
        title: { display: true, text: 'bar', color: palette.soot },
        ticks: { color: palette.soot, maxTicksLimit: 5 },
        grid: { display: false },
      },
    },
  };
}

function AsTable({
  what,
  record: { atS, overBar },
  shown,
}: Pick<Props, 'record'> & { readonly what: string; readonly shown: readonly number[] }) {
  const each = Math.max(1, Math.ceil(atS.length / ROWS));
  return (
    <Fold summary="As a table" sx={{ fontWeight: 400 }}>
      <DataTable label={`${what}, as a table`} heads={['Seconds', 'bar', `${what}, µm`]}>
        {atS.flatMap((seconds, i) =>
          i % each === 0
            ? [
                <TableRow key={seconds}>
                  <TableCell>{figure(seconds, 1)}</TableCell>
                  <TableCell>{figure(overBar[i] ?? 0)}</TableCell>
                  <TableCell>{figure(shown[i] ?? 0, 3)}</TableCell>
                </TableRow>,
              ]
            : [],
        )}
      </DataTable>
    </Fold>
  );
}

/** A tester’s record: the deflection of the case and the pressure over it, and the fit through it. */
export default memo(function TraceFigure({
  record,
  wholeS,
  fitUm = null,
  leftUm = null,
  heightPx = 190,
}: Props) {
  const palette = usePalette();
  const { atS, overBar, deflectionUm } = record;
  const shown = leftUm ?? deflectionUm;
  const drawn = Math.max(1, Math.ceil(atS.length / DRAWN));
  const points = (values: readonly number[]): { x: number; y: number }[] =>
    atS.flatMap((x, i) => (i % drawn === 0 ? [{ x, y: values[i] ?? 0 }] : []));
  const last = atS.length - 1;
  const what = leftUm === null ? 'Deflection' : 'Residual';
  const line = (label: string, values: readonly number[], colour: string, more: object = {}) => ({
    label,
    data: points(values),
    borderColor: colour,
    backgroundColor: colour,
    borderWidth: 2,
    pointRadius: 0,
    yAxisID: 'um',
    ...more,
  });
  return (
    <Box component="figure" sx={{ m: 0 }}>
      <Box sx={{ height: heightPx, position: 'relative', overflow: 'hidden' }}>
        <Drawn
          type="line"
          role="img"
          aria-label={
            last < 0
              ? `${what}: no reading yet`
              : `${what} over time: ${figure(shown[last] ?? 0)} µm after ${figure(atS[last] ?? 0, 0)} s, at ${figure(overBar[last] ?? 0)} bar`
          }
          data={{
            datasets: [
              line('deflection, µm', shown, palette.ink),
              ...(fitUm === null || leftUm !== null
                ? []
                : [line('fit, µm', fitUm, palette.cinnabar, { borderWidth: 1.5, borderDash: [5, 3] })]),
              ...(leftUm === null
                ? [
                    line('pressure, bar', overBar, palette.smoke, {
                      yAxisID: 'bar',
                      borderWidth: 1,
                      borderDash: [2, 2],
                    }),
                  ]
                : []),
            ],
          }}
          options={axesOf(wholeS, leftUm === null, palette)}
        />
      </Box>
      <Typography component="figcaption" variant="body2">
        {leftUm === null
          ? `Solid: deflection. ${fitUm === null ? '' : 'Dashed: the fit. '}Dotted: pressure.`
          : 'Residuals of the fit. If the fit is right, only noise is left.'}
      </Typography>
      <AsTable what={what} record={record} shown={shown} />
    </Box>
  );
});
