import type { Calibre } from '../../craft/movements';
import type { Service } from '../../craft/policy';
import { addMinutes } from '../../craft/time';
import type { JobContext } from '../../logbook';
import { chargedHereBy } from '../charging';
import { withinHours } from '../dayplan';

/** How long an owner usually waits for what is done at once, minutes. */
const USUAL_WAIT_MINUTES = 30;
/** A charge of which nothing tells how long it takes, days. */
const CHARGE_DAYS = 3;

/**
 * The instant (UTC) to promise a watch for, within the opening hours: what charges is promised by its plan under the lights of
 * this shop, at its late end, and anything else after the usual wait. `calibre` is null while nobody named the movement, and
 * the catalogue while the book is not read: then general figures count. Source: shop hours; the charging plan.
 */
export function promiseFor(
  service: Service | null,
  calibre: Calibre | null,
  context: Pick<JobContext, 'policy' | 'shop' | 'nowUtc'> & {
    readonly catalogue: JobContext['catalogue'] | null;
  },
): string {
  const { nowUtc, policy, shop, catalogue } = context;
  const by =
    service === 'recharge or new accumulator'
      ? ((catalogue && chargedHereBy(calibre, { ...context, catalogue })) ??
        addMinutes(nowUtc, CHARGE_DAYS * 24 * 60))
      : addMinutes(withinHours(nowUtc, policy.hours, shop.zone), USUAL_WAIT_MINUTES);
  return withinHours(by, policy.hours, shop.zone);
}
