import { buildCellTable, type CellRow, openFinder } from '../src/core/craft/cells';
import { readShippedCells } from '../src/server/store/shippedCells';

/** The finder per keystroke over the whole table, and over a generated one of five thousand sizes. */
const GENERATED = 5000;
const KEYSTROKE_MS = 16.7;

function generated(): CellRow[] {
  return Array.from({ length: GENERATED }, (_, index): CellRow => {
    const code = String(10_000 + index);
    return {
      chemistry: 'silver-oxide',
      iec: '',
      diameterMm: 4 + (index % 260) / 10,
      heightMm: 1 + (index % 53) / 10,
      tradeLow: `SR${code}SW`,
      tradeHigh: `SR${code}W`,
      numberLow: `7${code}`,
      numberHigh: `8${code}`,
      alkaline: `LR${code}`,
      card: '',
      capacityMinMAh: 10,
      capacityMaxMAh: 12,
    };
  });
}

const TYPED = [
  's',
  'sr',
  'sr6',
  'sr62',
  'sr621',
  '3',
  '36',
  '364',
  'cr',
  'cr2',
  'cr20',
  'cr2016',
  '1',
  '10',
  '102',
];

for (const [what, rows] of [
  ['the table', readShippedCells()],
  [`${GENERATED} generated sizes`, generated()],
] as const) {
  const finder = openFinder(buildCellTable(rows));
  const times: number[] = [];
  for (let round = 0; round < 20; round += 1)
    for (const name of TYPED)
      for (const query of [
        { name, diameterMm: null, heightMm: null },
        { name, diameterMm: 9.5, heightMm: null },
        { name: '', diameterMm: 6.8, heightMm: 2.15 },
      ]) {
        const began = performance.now();
        finder.find(query);
        times.push(performance.now() - began);
      }
  const sorted = times.sort((a, b) => a - b);
  const [middle, worst] = [
    sorted[Math.floor(sorted.length / 2)] ?? 0,
    sorted[Math.floor(sorted.length * 0.99)] ?? 0,
  ];
  console.log(
    `Finder over ${what}: a key takes ${middle.toFixed(3)} ms, 99 in 100 under ${worst.toFixed(2)} ms: ${(worst / KEYSTROKE_MS).toFixed(2)} of one display frame.`,
  );
  if (worst > KEYSTROKE_MS) process.exitCode = 1;
}
