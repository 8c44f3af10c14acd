import fc from 'fast-check';
import { SETTING } from '../../../testing/leakByLaw';
import { judgeLeak } from './judgeLeak';
import { openTraceReader, traceRowsOfJson } from './readTrace';
import { condense, phasesOf, pressedAt } from './record';
import { delimiterOf, readFigure, readHeading } from './traceColumns';
import { standardTest } from './watchTime';

const HEAD = ['time (s)', 'pressure (bar)', 'deflection (µm)'];
type Rows = (readonly string[])[];

/** A test in good order, as rows of a file. */
function rows(head: readonly string[] = HEAD): Rows {
  const { atS, overBar } = standardTest(2, 60, Infinity);
  return [
    [...head],
    ...atS.map((at, i) => [
      String(at),
      (overBar[i] ?? 0).toFixed(3),
      (5 * (overBar[i] ?? 0) + 0.03 * Math.sin(at * 1.7) + 0.02 * Math.sin(at * 0.61)).toFixed(3),
    ]),
  ];
}
function read(given: Rows) {
  const reader = openTraceReader();
  given.forEach((cells, i) => reader.row(cells, i + 1));
  return reader.done();
}
const refusal = (given: Rows): string => {
  const answer = read(given);
  return answer.verdict === 'refused' ? answer.reasons.join(' ') : 'read';
};
const kept = (given: Rows) => {
  const answer = read(given);
  if (answer.verdict === 'refused') throw new Error(answer.reasons.join(' '));
  return answer;
};
const changed = (line: number, cells: readonly string[]): Rows =>
  rows().map((each, i) => (i === line - 1 ? cells : each));

describe('headings', () => {
  it.each([
    ['time (s)', 'time', 1],
    ['Zeit [ms]', 'time', 0.001],
    ['elapsed min', 'time', 60],
    ['Pressure (kPa abs)', 'pressure', 0.01],
    ['overpressure_bar', 'pressure', 1],
    ['p [inHg]', 'pressure', 0.0338639],
    ['Druck (mbar)', 'pressure', 0.001],
    ['deflection_um', 'deflection', 1],
    ['Displacement (mm)', 'deflection', 1000],
    ['d [nm]', 'deflection', 0.001],
  ] as const)('%s', (text, column, factor) => {
    expect(readHeading(text)).toMatchObject({ column, factor, unitSaid: true });
  });
  it.each(['', 'temperature', 'Temp (°C)', 'date', 'note', '12.4'])(
    '“%s” names none of the three',
    (text) => {
      expect(readHeading(text)).toBeNull();
    },
  );
  it('say whether a pressure is absolute, or do not', () => {
    expect(
      ['pressure (bar abs)', 'p bar gauge', 'overpressure bar', 'pressure bar'].map(
        (text) => readHeading(text)?.absolute,
      ),
    ).toEqual([true, false, false, null]);
  });
});

describe('figures of a file', () => {
  it.each([
    ['12,4', 12.4],
    ['+0012.40', 12.4],
    ['1.2e-3', 0.0012],
    ['−0.5', -0.5],
    ['.5', 0.5],
  ])('%s', (text, value) => expect(readFigure(text, 'pressure')).toBe(value));
  it.each(['', '12 14', 'abc', '1.2.3', '12 µm', '00:01:05'])('“%s” is none', (text) => {
    expect(readFigure(text, 'deflection')).toBeNaN();
  });
  it('of a time may be a clock or a date', () => {
    expect([readFigure('00:01:05', 'time'), readFigure('1:05,5', 'time')]).toEqual([65, 65.5]);
    expect(readFigure('2026-03-12 09:30:10', 'time') - readFigure('2026-03-12T09:30:00', 'time')).toBe(10);
  });
  it('are parted by what the first lines show', () => {
    expect([delimiterOf('a;b;c\n1,5;2,5;3'), delimiterOf('a\tb\tc'), delimiterOf('a,b,c')]).toEqual([
      ';',
      '\t',
      ',',
    ]);
  });
});

describe('a trace', () => {
  it('is read as it is, with what was understood', () => {
    const answer = kept(rows());
    expect(answer.record.atS).toHaveLength(rows().length - 1);
    expect(answer.repairs).toEqual([]);
    expect(answer.understood).toEqual([
      'time in s',
      'pressure in bar',
      'deflection in µm',
      'gauge pressure, because it starts at zero',
    ]);
  });

  it('comes to the same record in any units, commas, and counted from nought', () => {
    const plain = kept(rows()).record;
    const [, ...body] = rows();
    const other = kept([
      ['made by', 'somebody'],
      ['deflection (mm)', 'note', 'pressure (kPa)', 'time (ms)'],
      ...body.map(([at = '', over = '', um = '']) => [
        (Number(um) / 1000).toFixed(7).replace('.', ','),
        '',
        (100 * (Number(over) + 1.012)).toFixed(4).replace('.', ','),
        String(Number(at) * 1000),
      ]),
    ]);
    expect(other.record.atS).toEqual(plain.atS);
    other.record.overBar.forEach((bar, i) => expect(bar).toBeCloseTo(plain.overBar[i] ?? NaN, 4));
    other.record.deflectionUm.forEach((um, i) => expect(um).toBeCloseTo(plain.deflectionUm[i] ?? NaN, 4));
    expect(other.understood.join()).toContain('1.01 bar taken off');
  });

  it.each<readonly [string, Rows, string]>([
    ['text for a figure', changed(30, ['28', '2', 'over']), 'Left out, no figure in them: line 30.'],
    ['a row too short', changed(30, ['28']), 'Left out, no figure in them: line 30.'],
    ['a time twice', changed(30, ['27', '2.000', '10']), 'Left out, the same time again: line 30.'],
    ['a time before', changed(30, ['3', '2.000', '10']), 'Left out, a time before the last: line 30.'],
    ['a spike', changed(60, ['58', '2.000', '90']), 'Left out, a spike: line 60.'],
    [
      'a gap',
      rows().filter((_, i) => i < 50 || i > 65),
      'Gaps, over which nothing was made up: 17 s after line 50.',
    ],
  ])('%s: told, and left out', (_, given, words) => {
    expect(kept(given).repairs).toEqual([words]);
  });

  it.each<readonly [string, Rows, string]>([
    ['nothing', [], 'The file is empty.'],
    ['blank lines alone', [[''], ['', ''], [' ']], 'The file is empty.'],
    ['headings alone', rows().slice(0, 1), 'headings and no readings under them'],
    ['no headings', rows().slice(1), 'No line names'],
    [
      'a heading twice',
      rows(['time', 'pressure bar', 'deflection']).map((each, i) =>
        i === 0 ? [...each, 'pressure kPa'] : each,
      ),
      'Two columns are named pressure',
    ],
    ['one point', rows().slice(0, 2), '1 point: at least 12 are needed'],
    [
      'text throughout',
      rows().map((each, i) => (i === 0 ? each : [each[0] ?? '', 'on', 'off'])),
      'hold no three figures: lines 2, 3, 4, 5 and',
    ],
    ['backwards', [rows()[0] ?? [], ...rows().slice(1).reverse()], 'Times do not rise: lines 3, 4, 5, 6 and'],
    ['two columns swapped', rows(['deflection', 'pressure bar', 'time']), 'Times do not rise'],
    [
      'a half missing',
      rows().filter((_, i) => i < 30 || i > 110),
      'Nothing was recorded for much of the test',
    ],
    [
      'more pressure than any tester',
      rows().map((each, i) =>
        i === 0 ? each : [each[0] ?? '', String(Number(each[1]) * 400), each[2] ?? ''],
      ),
      'which no tester reaches',
    ],
    [
      'less than no air',
      rows().map((each, i) =>
        i === 0 ? each : [each[0] ?? '', String(Number(each[1]) * -4), each[2] ?? ''],
      ),
      'which no tester reaches',
    ],
    [
      'neither absolute nor gauge',
      rows().map((each, i) =>
        i === 0 ? each : [each[0] ?? '', String(Number(each[1]) + 0.5), each[2] ?? ''],
      ),
      'neither outside air pressure',
    ],
    [
      'leaps everywhere',
      rows().map((each, i) => (i === 0 || i % 7 > 0 ? each : [each[0] ?? '', each[1] ?? '', String(40 + i)])),
      'readings leap',
    ],
  ])('%s: refused, with where', (_, given, words) => {
    expect(refusal(given)).toContain(words);
  });

  it('whose columns look swapped is refused', () => {
    const { atS, overBar } = standardTest(10, 60, Infinity);
    const swapped: Rows = [
      ['time', 'pressure (bar gauge)', 'deflection'],
      ...atS.map((at, i) => [
        String(at),
        ((overBar[i] ?? 0) * Math.exp(-at / 200)).toFixed(4),
        String((overBar[i] ?? 0) / 5),
      ]),
    ];
    expect(refusal(swapped)).toContain('look swapped');
  });

  it('never throws, and gives only records whose times rise, whatever the rows', () => {
    const cell = fc.oneof(fc.string(), fc.integer().map(String), fc.double().map(String));
    fc.assert(
      fc.property(
        fc.array(fc.array(cell, { maxLength: 5 }), { maxLength: 40 }),
        fc.boolean(),
        (given, headed) => {
          const answer = read(headed ? [HEAD, ...given] : given);
          return (
            answer.verdict === 'refused' ||
            answer.record.atS.every(
              (at, i) => Number.isFinite(at) && (i === 0 || at > (answer.record.atS[i - 1] ?? 0)),
            )
          );
        },
      ),
    );
  });
});

describe('a trace as JSON', () => {
  const points = rows()
    .slice(1)
    .map(([time, pressure, deflection]) => ({
      time: Number(time),
      pressure: Number(pressure),
      deflection: Number(deflection),
    }));
  it.each([
    ['points by name', points],
    ['a list inside', { device: 'x', test: { samples: points } }],
    [
      'a list under each name',
      {
        time_s: points.map(({ time }) => time),
        pressure_bar: points.map(({ pressure }) => pressure),
        deflection_um: points.map(({ deflection }) => deflection),
      },
    ],
    ['rows', rows()],
  ])('%s', (_, value) => {
    expect(kept([...(traceRowsOfJson(value) ?? [])]).record.atS).toHaveLength(points.length);
  });
  it.each([null, 12, 'text', [], {}, [1, 2], { a: { b: {} } }])('%j holds none', (value) => {
    expect(traceRowsOfJson(value) ?? []).toEqual([]);
  });
});

describe('commas in figures between commas', () => {
  const split = (line: string): readonly string[] => line.split(',');
  it('are refused where a row is longer than its headings, with its line and both readings', () => {
    const answer = read(changed(13, split('12,2,20,1602')));
    expect(answer).toMatchObject({ verdict: 'refused' });
    const words = refusal(changed(13, split('12,2,20,1602')));
    expect(words).toContain('Line 13 has 4 figures under 3 headings.');
    expect(words).toContain('time 12, pressure 2, deflection 20,');
    expect(words).toContain('with a decimal comma as time 12, pressure 2, deflection 20.1602.');
  });
  it('are refused where every figure has one', () => {
    const all = rows().map((cells, i) =>
      i === 0 ? cells : cells.flatMap((each) => Number(each).toFixed(2).split('.')),
    );
    expect(refusal(all)).toMatch(
      /^Line 2 has 6 figures under 3 headings, and \d+ more lines have too many, too\./,
    );
  });
  it('are no matter where a line only ends in commas, or has fewer figures', () => {
    expect(read(rows().map((cells, i) => (i === 0 ? cells : [...cells, '', '']))).verdict).toBe('read');
  });
});

describe('the record the plan asks for', () => {
  /** A test as the plan asks for it, with so short a baseline. */
  const planned = (overBar: number, watchS: number, baselineS: number, stepS = 1): Rows => {
    const { atS, overBar: bars } = standardTest(overBar, watchS, Infinity);
    const from = 15 - baselineS;
    return [
      ['time (s)', 'pressure (bar)', 'deflection (µm)'],
      ...atS.flatMap((at, i) =>
        at < from || at % stepS !== 0
          ? []
          : [
              [
                String(at - from),
                (bars[i] ?? 0).toFixed(3),
                (5 * (bars[i] ?? 0) + 0.03 * Math.sin(at * 1.7) + 0.02 * Math.sin(at * 0.61)).toFixed(3),
              ],
            ],
      ),
    ];
  };

  it.each([
    [2, 300, 10],
    [2, 600, 10],
    [2, 1800, 10],
    [2, 3600, 12],
    [0.9, 300, 10],
    [1, 600, 10],
    [-0.7, 600, 10],
  ])(
    'at %d bar, watched %d s with a baseline of %d s, is read as above outside air, and judged',
    (bar, watchS, baselineS) => {
      const { record, understood } = kept(planned(bar, watchS, baselineS));
      expect(understood.join()).toContain('gauge pressure, because it starts at zero');
      expect(pressedAt(record)).toBeCloseTo(bar, 1);
      const { verdict } = judgeLeak({ record }, SETTING);
      expect(['tight', 'not yet known']).toContain(verdict);
    },
  );

  it('of a hundred thousand readings keeps its baseline', () => {
    const atS = Array.from({ length: 100_000 }, (_, i) => i / 20);
    const overBar = atS.map((at) => (at < 10 || at > 2500 ? 0 : 2));
    const record = condense({
      atS,
      overBar,
      deflectionUm: overBar.map((bar, i) => 5 * bar + 0.02 * Math.sin(i)),
    });
    expect(record.atS.length).toBeLessThanOrEqual(1000);
    expect(phasesOf(record).map(({ kind }) => kind)).toEqual(['baseline', 'pressure', 'recovery']);
    expect(judgeLeak({ record }, SETTING).verdict).toBe('tight');
  });

  it('is asked about where it may be absolute or not', () => {
    const unsaid = planned(0.9, 120, 10).map(([at, bar, um], i) =>
      i === 0 ? [at ?? '', bar ?? '', um ?? ''] : [at ?? '', (0.95 - Number(bar)).toFixed(3), um ?? ''],
    );
    expect(refusal(unsaid)).toContain('begins at 0.95 bar and goes down to 0.05 bar');
  });
});
