import type { StageId } from './stages';

export const SERVICES = [
  'cell only',
  'cell and reseal',
  'reseal and test',
  'recharge or new accumulator',
  'diagnose',
  'refer',
] as const;
export type Service = (typeof SERVICES)[number];

/** The facts a service can ask for, by the stage they belong to. */
export const REQUIREMENTS = {
  'arrive.watch': { stage: 'arrive', words: 'the watch' },
  'arrive.complaint': { stage: 'arrive', words: 'what the owner sees' },
  'arrive.cell-history': { stage: 'arrive', words: 'last cell change' },
  'arrive.wear': { stage: 'arrive', words: 'use and exposure to water' },
  'arrive.originality': { stage: 'arrive', words: 'whether originality matters' },
  'arrive.promise': { stage: 'arrive', words: 'the promised time' },
  'arrive.consent': { stage: 'arrive', words: 'consent to the named risks' },
  'arrive.ready': { stage: 'arrive', words: 'whether everything needed is available' },
  'arrive.decision': { stage: 'arrive', words: 'referral and its reason' },
  'open.back': { stage: 'open', words: 'how the back was opened' },
  'open.as-found': { stage: 'open', words: 'traces of earlier repairs' },
  'open.seals': { stage: 'open', words: 'how many seals there are' },
  'identify.movement': { stage: 'identify', words: 'which movement it is' },
  'check.restVoltageV': { stage: 'check', words: 'rest voltage of the old cell' },
  'check.currentUA': { stage: 'check', words: 'current' },
  'check.diagnosis': { stage: 'check', words: 'the finding' },
  'cell.found': { stage: 'cell', words: 'the cell found' },
  'cell.fitted': { stage: 'cell', words: 'the cell fitted' },
  'cell.old-settled': { stage: 'cell', words: 'whereabouts of the old cell' },
  'cell.charged': { stage: 'cell', words: 'a charge after which it steps normally' },
  'seal.gasket': { stage: 'seal', words: 'state of the gasket' },
  'seal.other': { stage: 'seal', words: 'crown, pusher and crystal seals' },
  'seal.closed': { stage: 'seal', words: 'how it was closed' },
  'test.made': { stage: 'test', words: 'a water resistance test' },
  'set.runs': { stage: 'set', words: 'that it runs' },
  'set.time': { stage: 'set', words: 'the time set' },
  'set.functions': { stage: 'set', words: 'functions checked' },
  'set.outside': { stage: 'set', words: 'crown, bracelet and bezel checked' },
  'set.proving-run': { stage: 'set', words: 'the proving run' },
} as const satisfies Record<string, { stage: StageId; words: string }>;
export type Requirement = keyof typeof REQUIREMENTS;

export interface ServicePolicy {
  readonly requires: readonly Requirement[];
  readonly priceMinor: number;
}

const TAKEN_IN: readonly Requirement[] = [
  'arrive.watch',
  'arrive.complaint',
  'arrive.promise',
  'arrive.consent',
];
const PROVED: readonly Requirement[] = ['set.runs', 'set.time', 'set.functions'];
const CELL_ONLY: readonly Requirement[] = [
  ...TAKEN_IN,
  'open.back',
  'identify.movement',
  'check.restVoltageV',
  'cell.found',
  'cell.fitted',
  'cell.old-settled',
  'seal.gasket',
  'seal.closed',
  ...PROVED,
];

/** What each service asks for and costs until the shop decides otherwise. */
export const DEFAULT_SERVICES: Readonly<Record<Service, ServicePolicy>> = {
  'cell only': { requires: CELL_ONLY, priceMinor: 1400 },
  'cell and reseal': { requires: [...CELL_ONLY, 'check.currentUA'], priceMinor: 2900 },
  'reseal and test': {
    requires: [
      ...TAKEN_IN,
      'arrive.wear',
      'open.back',
      'seal.gasket',
      'seal.other',
      'seal.closed',
      'test.made',
      ...PROVED,
    ],
    priceMinor: 3400,
  },
  'recharge or new accumulator': {
    requires: [...TAKEN_IN, 'identify.movement', 'cell.charged', 'seal.gasket', 'seal.closed', ...PROVED],
    priceMinor: 4900,
  },
  diagnose: {
    requires: [...TAKEN_IN, 'identify.movement', 'check.diagnosis', 'seal.closed'],
    priceMinor: 1800,
  },
  refer: { requires: ['arrive.watch', 'arrive.complaint', 'arrive.decision'], priceMinor: 0 },
};
