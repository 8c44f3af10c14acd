import { type Schools, USUAL_SCHOOLS } from './schools';
import { DEFAULT_SERVICES, type Service, type ServicePolicy } from './services';

export const WEEKDAYS = [
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
  'Sunday',
] as const;
export type Weekday = (typeof WEEKDAYS)[number];

/** Hours of one day, `HH:mm` in the shop's zone. */
export interface OpenHours {
  readonly from: string;
  readonly to: string;
}

/** What is charged beyond the service itself. */
export interface PriceLine {
  readonly what: string;
  readonly priceMinor: number;
}

/** The things beyond a service that the craft itself asks the price of. */
export type PricedItem =
  | 'case-gasket'
  | 'outer-seal'
  | 'water-test'
  | 'accumulator-kit'
  | 'contacts-cleaned'
  | 'contact-set'
  | 'movement-oiled'
  | 'new-circuit'
  | 'new-movement'
  | 'spring-bar';

/** One line of the shop's price list: the shop words it as it likes, and it stays the same item. */
export interface PricedLine extends PriceLine {
  readonly item: string;
}

/** What the shop has decided. Every revision is kept. */
export interface Policy {
  readonly revision: number;
  readonly services: Readonly<Record<Service, ServicePolicy>>;
  readonly extras: readonly PricedLine[];
  readonly schools: Schools;
  /** Null: closed that day. */
  readonly hours: Readonly<Record<Weekday, OpenHours | null>>;
  readonly currency: string;
  readonly warrantyMonths: number;
  /** How long a watch runs at the bench before it is handed back; 0: no proving run. */
  readonly provingRunHours: number;
  /** A watch that charges itself goes back with so much of its charge, percent of full. */
  readonly handBackChargePercent: number;
  readonly winderTurnsAnHour: number;
  /** The most this shop tests a watch at, and the most each of its testers is made for, bar. */
  readonly mostTestBar: number;
  readonly dryTesterMostBar: number;
  readonly wetTesterMostBar: number;
  /** How far the dry tester goes below the air outside, bar; 0 for one that only presses. */
  readonly dryTesterVacuumBar: number;
  /** Noise of one reading of the dry tester, by its book, µm. */
  readonly dryTesterNoiseUm: number;
  /** What a job costs the shop, labour and material, without tax. */
  readonly ownCostMinor: number;
  /** What the shop keeps when it refers a watch instead. */
  readonly referralMarginMinor: number;
}

/** The price of one thing beyond the service, in minor units; null where the list has no line for it. */
export function priceInList({ extras }: Pick<Policy, 'extras'>, item: PricedItem): number | null {
  return extras.find((line) => line.item === item)?.priceMinor ?? null;
}

const WORKDAY: OpenHours = { from: '08:30', to: '17:30' };

/** What a shop starts with until it decides otherwise. */
export const DEFAULT_POLICY: Policy = {
  revision: 1,
  services: DEFAULT_SERVICES,
  extras: [
    { item: 'case-gasket', what: 'case gasket', priceMinor: 600 },
    { item: 'outer-seal', what: 'crown or pusher seal', priceMinor: 900 },
    { item: 'water-test', what: 'water resistance test', priceMinor: 1200 },
    { item: 'accumulator-kit', what: 'accumulator kit', priceMinor: 2400 },
    { item: 'contacts-cleaned', what: 'contacts cleaned after a leak', priceMinor: 1500 },
    { item: 'contact-set', what: 'contact set and cleaned', priceMinor: 900 },
    { item: 'movement-oiled', what: 'movement cleaned and oiled', priceMinor: 4500 },
    { item: 'new-circuit', what: 'new circuit', priceMinor: 3800 },
    { item: 'new-movement', what: 'new movement', priceMinor: 5900 },
    { item: 'spring-bar', what: 'spring bar', priceMinor: 150 },
  ],
  schools: USUAL_SCHOOLS,
  hours: {
    Monday: WORKDAY,
    Tuesday: WORKDAY,
    Wednesday: WORKDAY,
    Thursday: WORKDAY,
    Friday: WORKDAY,
    Saturday: { from: '09:00', to: '13:00' },
    Sunday: null,
  },
  currency: 'EUR',
  warrantyMonths: 12,
  provingRunHours: 0,
  // Half charged it has weeks before it has to see light or a wrist.
  handBackChargePercent: 50,
  winderTurnsAnHour: 900,
  mostTestBar: 10,
  dryTesterMostBar: 10,
  wetTesterMostBar: 12.5,
  dryTesterVacuumBar: 0.7,
  dryTesterNoiseUm: 0.05,
  ownCostMinor: 500,
  referralMarginMinor: 300,
};

/** A price list as it was stored; one that names no items yet has those that stand under the first program's words. */
function completeExtras(stored: readonly (PriceLine & Partial<PricedLine>)[]): readonly PricedLine[] {
  return stored.map((line, index) => ({
    ...line,
    item:
      line.item ?? DEFAULT_POLICY.extras.find(({ what }) => what === line.what)?.item ?? `line-${index + 1}`,
  }));
}

/**
 * A policy as it was stored, by whichever version of the program, with what it did not know yet as the shop
 * starts with it.
 */
export function completePolicy(
  stored: Partial<Policy> & { readonly gasketRule?: Schools['gasket'] },
): Policy {
  const { gasketRule, ...rest } = stored;
  return {
    ...DEFAULT_POLICY,
    ...rest,
    services: { ...DEFAULT_POLICY.services, ...rest.services },
    extras: completeExtras(rest.extras ?? DEFAULT_POLICY.extras),
    schools: { ...USUAL_SCHOOLS, ...(gasketRule ? { gasket: gasketRule } : {}), ...rest.schools },
    hours: { ...DEFAULT_POLICY.hours, ...rest.hours },
  };
}

export interface Shop {
  readonly name: string;
  readonly place: string;
  /** IANA zone the counter's clock shows. */
  readonly zone: string;
}
