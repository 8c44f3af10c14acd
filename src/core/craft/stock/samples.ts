import { chemistries, type CellType, MOST_CELL_V } from '../cells';
import { figure, type Judged, invalidFigures } from '../judgement';

export const PRINT_STATES = [
  'sharp and whole',
  'blurred or crooked',
  'another name than the blister',
] as const;
export type PrintState = (typeof PRINT_STATES)[number];

/** One fresh cell of a lot, measured and looked at. */
export interface Sample {
  readonly restVoltageV: number;
  readonly print: PrintState;
}

/**
 * How far under its nominal voltage a fresh cell may be, and how far over, V. Lithium stands higher when fresh. Ours,
 * from bench practice.
 */
const FRESH = { under: 0.03, over: 0.06, lithiumOver: 0.35 } as const;

/**
 * Whether a lot may be used by its sample: the voltage of a fresh one and its print. Doubtful lots are put in
 * quarantine, since a counterfeit looks like the real one until it leaks. Volts. Source: bench practice.
 */
export function judgeSample({ restVoltageV, print }: Sample, cell: CellType): Judged<'good' | 'doubtful'> {
  const { nominalV, chemistry } = cell;
  const [least, most] = [
    nominalV - FRESH.under,
    nominalV + (chemistry === 'lithium' ? FRESH.lithiumOver : FRESH.over),
  ];
  const reasons = [
    ...invalidFigures([
      { path: 'restVoltageV', what: 'The voltage', value: restVoltageV, unit: 'V', from: 0, to: MOST_CELL_V },
      {
        path: 'nominalV',
        what: 'The voltage it should have',
        value: nominalV,
        unit: 'V',
        over: 0,
        to: MOST_CELL_V,
      },
    ]).map(({ reason }) => reason),
    ...(restVoltageV < least
      ? [
          `${figure(restVoltageV)} V is low for a fresh ${chemistries[chemistry].words} cell. It is old, or not what its print says.`,
        ]
      : []),
    ...(restVoltageV > most
      ? [
          `${figure(restVoltageV)} V is too high for ${chemistries[chemistry].words}: it may be another chemistry.`,
        ]
      : []),
    ...(print === 'sharp and whole' ? [] : [`The print is ${print}. It may be a counterfeit.`]),
  ];
  return {
    verdict: reasons.length > 0 ? 'doubtful' : 'good',
    reasons:
      reasons.length > 0
        ? reasons
        : [`${figure(restVoltageV)} V and a clean print, as expected for a fresh cell.`],
    working: [
      {
        what: 'sample of the lot',
        rule: `${figure(least)} to ${figure(most)} V fresh and at rest, print sharp and whole`,
        figures: `${figure(restVoltageV)} V, print ${print}`,
        source: 'bench practice',
      },
    ],
  };
}
