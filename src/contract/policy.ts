import { z } from 'zod';
import { MOST_WINDER_TURNS } from '../core/craft/charging';
import {
  type OpenHours,
  type Policy,
  REQUIREMENTS,
  type Requirement,
  SCHOOL_IDS,
  SERVICES,
  type SchoolId,
  type Schools,
  type Service,
  type ServicePolicy,
  type Shop,
  waysOf,
  WEEKDAYS,
  type Weekday,
} from '../core/craft/policy';
import { cost, type Fields, figure, schemasOf } from './describe';
import { id, objectOf, oneOf, optionalText, priceLine, priceMinor, text } from './fields';

const bar = (label: string) => figure(label, { min: 0.1, max: 130, example: 10, quantity: 'pressureBar' });

type Numbers = Pick<
  Policy,
  | 'warrantyMonths'
  | 'provingRunHours'
  | 'handBackChargePercent'
  | 'winderTurnsAnHour'
  | 'mostTestBar'
  | 'dryTesterMostBar'
  | 'wetTesterMostBar'
  | 'dryTesterVacuumBar'
  | 'dryTesterNoiseUm'
>;

/** The figures of the policy, in the order in which its form asks. */
export const policyNumbers: Fields<Numbers> = {
  warrantyMonths: figure('Warranty', {
    min: 0,
    max: 120,
    example: 12,
    unit: 'months',
    whole: true,
    helper: 'on the work done',
  }),
  provingRunHours: figure('Proving run', {
    min: 0,
    max: 168,
    example: 8,
    quantity: 'hours',
    helper: '0 for none; require it for a service above',
  }),
  handBackChargePercent: figure('Charge at hand-back', {
    min: 5,
    max: 100,
    example: 50,
    unit: '% of full',
    helper: 'for watches that charge themselves',
  }),
  winderTurnsAnHour: figure('Speed of the winder', {
    min: 10,
    max: MOST_WINDER_TURNS,
    example: 900,
    unit: 'turns an hour',
  }),
  mostTestBar: bar('Maximum test pressure'),
  dryTesterMostBar: bar('Maximum pressure of the dry tester'),
  wetTesterMostBar: bar('Maximum pressure of the wet tester'),
  dryTesterVacuumBar: figure('Vacuum of the dry tester', {
    min: 0,
    max: 0.9,
    example: 0.7,
    quantity: 'pressureBar',
    helper: 'below the air outside; 0 where it only presses',
  }),
  dryTesterNoiseUm: figure('Noise of the dry tester', {
    min: 0.001,
    max: 20,
    example: 0.05,
    quantity: 'micrometres',
    helper: 'of one reading, from the manual of the tester',
  }),
};

type Sums = Pick<Policy, 'ownCostMinor' | 'referralMarginMinor'>;

/** The sums by which it is judged whether a tool pays. */
export const policySums: Fields<Sums> = {
  ownCostMinor: cost('Own cost of a job'),
  referralMarginMinor: cost('Margin on a referral'),
};

/** What the shop says of itself, as its form and its refusals call it. */
export const shopWords = {
  name: 'Name of the shop',
  place: 'Place',
  zone: 'Time zone',
  currency: 'Currency',
} as const;

const hour = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Hours: hour and minute, e.g. 08:30.');
const openHours: z.ZodType<OpenHours, OpenHours> = z
  .strictObject({ from: hour, to: hour })
  .refine((hours) => hours.from < hours.to, { path: ['to'], error: 'Hours: closing comes after opening.' });

/** An object with a value for each of the keys. */
function recordOf<K extends string, V>(keys: readonly K[], value: (key: K) => z.ZodType<V, V>) {
  type Values = Record<K, z.ZodType<V, V>>;
  return objectOf<Record<K, V>>(Object.fromEntries(keys.map((key) => [key, value(key)])) as Values);
}

function isZone(zone: string): boolean {
  try {
    Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

const shop: z.ZodType<Shop, Shop> = z.strictObject({
  name: text({ words: shopWords.name, max: 80, example: 'The Lamp Counter' }),
  place: optionalText({ words: shopWords.place, max: 120, example: 'Ferry terminal, hall B' }),
  zone: z.string().refine(isZone, `${shopWords.zone}: one of the world’s time zones, e.g. Europe/Lisbon.`),
});

const policy = objectOf<Omit<Policy, 'revision'>>({
  services: recordOf<Service, ServicePolicy>(SERVICES, (service) =>
    objectOf<ServicePolicy>({
      requires: z
        .array(oneOf('Fact', Object.keys(REQUIREMENTS) as Requirement[]))
        .refine(
          (requires) => requires.includes('arrive.watch'),
          `${service}: the watch itself is always asked for.`,
        )
        .refine(
          (requires) => !requires.includes('open.back') || requires.includes('seal.closed'),
          `${service}: what is opened is closed again; ask for both.`,
        )
        .refine(
          (requires) => !requires.includes('cell.fitted') || requires.includes('cell.old-settled'),
          `${service}: a cell taken out is settled; ask where it went.`,
        ),
      priceMinor,
    }),
  ),
  extras: z
    .array(priceLine.extend({ item: text({ words: 'Item', max: 60, example: 'spring-bar' }) }))
    .max(60)
    .refine(
      (lines) => new Set(lines.map((line) => line.what)).size === lines.length,
      'Price list: each thing once.',
    )
    .refine(
      (lines) => new Set(lines.map((line) => line.item)).size === lines.length,
      'Price list: each item once.',
    ),
  // Each school takes one of its own ways: `waysOf` says so of each, and the compiler loses it in the list.
  schools: recordOf<SchoolId, string>(SCHOOL_IDS, (school) =>
    oneOf<readonly string[]>(school, waysOf(school)),
  ) as z.ZodType as z.ZodType<Schools, Schools>,
  hours: recordOf<Weekday, OpenHours | null>(WEEKDAYS, () => openHours.nullable()),
  currency: z.string().regex(/^[A-Z]{3}$/, `${shopWords.currency}: three letters, e.g. EUR.`),
  ...schemasOf(policySums),
  ...schemasOf(policyNumbers),
});

/** What the policy page sends: the shop and its policy, resting on the revision its writer saw. */
export const policyWrite = z.strictObject({
  shop,
  policy,
  basedOn: z.int().min(1),
  technicianId: id,
});
export type PolicyWrite = z.infer<typeof policyWrite>;

/** One revision of the policy, as its history tells it. */
export interface PolicyRevision {
  readonly revision: number;
  readonly technicianId: string | null;
  readonly recordedAt: string;
}
