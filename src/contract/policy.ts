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
import { id, number, objectOf, oneOf, priceLine, priceMinor, text } from './fields';

const testBar = (words: string) => number({ words, min: 0.1, max: 130, unit: 'bar', example: 10 });

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
  name: text({ words: 'Name of the shop', max: 80, example: 'The Lamp Counter' }),
  place: z.string().trim().max(120, 'Place: at most 120 characters.'),
  zone: z.string().refine(isZone, 'Zone: one of the world’s time zones, e.g. Europe/Lisbon.'),
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
  currency: z.string().regex(/^[A-Z]{3}$/, 'Currency: three letters, e.g. EUR.'),
  warrantyMonths: number({ words: 'Warranty', min: 0, max: 120, unit: 'months', example: 12 }).int(),
  ownCostMinor: priceMinor,
  referralMarginMinor: priceMinor,
  provingRunHours: number({ words: 'Proving run', min: 0, max: 168, unit: 'h', example: 8 }),
  handBackChargePercent: number({
    words: 'Hand back charged to',
    min: 5,
    max: 100,
    unit: '% of full',
    example: 50,
  }),
  winderTurnsAnHour: number({
    words: 'The winder',
    min: 10,
    max: MOST_WINDER_TURNS,
    unit: 'turns an hour',
    example: 900,
  }),
  mostTestBar: testBar('We test at most at'),
  dryTesterMostBar: testBar('The dry tester reaches'),
  wetTesterMostBar: testBar('The wet tester reaches'),
  dryTesterVacuumBar: number({
    words: 'Vacuum of the dry tester',
    min: 0,
    max: 0.9,
    unit: 'bar',
    example: 0.7,
  }),
  dryTesterNoiseUm: number({
    words: 'Noise of the dry tester',
    min: 0.001,
    max: 20,
    unit: 'µm',
    example: 0.05,
  }),
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
