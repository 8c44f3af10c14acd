/** The nine stages of a job, in order. */
export const STAGES = [
  'arrive',
  'open',
  'identify',
  'check',
  'cell',
  'seal',
  'test',
  'set',
  'handback',
] as const;
export type StageId = (typeof STAGES)[number];

export const STAGE_WORDS: Readonly<Record<StageId, string>> = {
  arrive: 'Arrive',
  open: 'Open',
  identify: 'Identify',
  check: 'Check',
  cell: 'Cell',
  seal: 'Seal and close',
  test: 'Test',
  set: 'Set and prove',
  handback: 'Hand back',
};

export const SERVICES = ['cell only', 'cell and reseal'] as const;
export type Service = (typeof SERVICES)[number];

/** The facts a service can ask for, by the stage they belong to. */
export const REQUIREMENTS = {
  'arrive.watch': { stage: 'arrive', words: 'the watch' },
  'arrive.complaint': { stage: 'arrive', words: 'what the owner sees' },
  'arrive.promise': { stage: 'arrive', words: 'the promised time' },
  'arrive.consent': { stage: 'arrive', words: 'consent to the named risks' },
  'open.back': { stage: 'open', words: 'how the back was opened' },
  'identify.movement': { stage: 'identify', words: 'which movement it is' },
  'check.restVoltageV': { stage: 'check', words: 'rest voltage of the old cell' },
  'check.currentUA': { stage: 'check', words: 'current' },
  'cell.found': { stage: 'cell', words: 'the cell found' },
  'cell.fitted': { stage: 'cell', words: 'the cell fitted' },
  'cell.old-settled': { stage: 'cell', words: 'where the old cell went' },
  'seal.gasket': { stage: 'seal', words: 'state of the gasket' },
  'seal.closed': { stage: 'seal', words: 'how it was closed' },
  'set.runs': { stage: 'set', words: 'that it runs' },
  'set.time': { stage: 'set', words: 'the time set' },
  'set.functions': { stage: 'set', words: 'its functions proved' },
} as const satisfies Record<string, { stage: StageId; words: string }>;
export type Requirement = keyof typeof REQUIREMENTS;

export interface ServicePolicy {
  readonly requires: readonly Requirement[];
  readonly priceMinor: number;
}

/** What the shop has decided. Every revision is kept. */
export interface Policy {
  readonly revision: number;
  readonly services: Readonly<Record<Service, ServicePolicy>>;
  readonly gasketRule: 'renew at every opening' | 'inspect and decide';
  readonly currency: string;
  readonly warrantyMonths: number;
}

const CELL_ONLY: readonly Requirement[] = [
  'arrive.watch',
  'arrive.complaint',
  'arrive.promise',
  'arrive.consent',
  'open.back',
  'identify.movement',
  'check.restVoltageV',
  'cell.found',
  'cell.fitted',
  'cell.old-settled',
  'seal.gasket',
  'seal.closed',
  'set.runs',
  'set.time',
  'set.functions',
];

/** What a shop starts with until it decides otherwise. */
export const DEFAULT_POLICY: Policy = {
  revision: 1,
  services: {
    'cell only': { requires: CELL_ONLY, priceMinor: 1400 },
    'cell and reseal': { requires: [...CELL_ONLY, 'check.currentUA'], priceMinor: 2900 },
  },
  gasketRule: 'inspect and decide',
  currency: 'EUR',
  warrantyMonths: 12,
};

export interface Shop {
  readonly name: string;
  readonly place: string;
  /** IANA zone the counter's clock shows. */
  readonly zone: string;
}
