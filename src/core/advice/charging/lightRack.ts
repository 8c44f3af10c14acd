import { type Lit, lookDue } from './litWords';
import type { LightPlaceTool } from '../../craft/tools';

/** A watch at a light place: in its light, or beside it until there is room. */
export interface AtPlace<T> {
  readonly job: T;
  /** It lies there, and the light does not reach it: no more have room. */
  readonly waits: boolean;
  /** When one before it is likely ready and gives its room; null: it does not wait, or nobody knows. */
  readonly roomFromUtc: string | null;
  /** When it can be handed back, likely, the wait counted; null: never, or not known. */
  readonly readyUtc: string | null;
  /** When it is looked at next; null: not before it is ready, or not known. */
  readonly lookNextUtc: string | null;
}

export interface LightRack<T> {
  /** What lies where, the place first that is measured; a place that is gone from the tools stands last, as null. */
  readonly places: readonly {
    readonly place: LightPlaceTool | null;
    readonly watches: readonly AtPlace<T>[];
  }[];
  readonly toLookAt: readonly T[];
  readonly ready: readonly T[];
  readonly amiss: readonly T[];
}

/** Who has the light of a place that holds `most` at once, in the order they were laid down, and who waits how long. */
function queued<T extends { readonly lit: Lit }>(
  jobs: readonly T[],
  most: number,
  nowUtc: string,
): AtPlace<T>[] {
  const frees: (string | null)[] = [];
  return jobs.map((job) => {
    const { lit } = job;
    const lookNextUtc =
      lit.stepsNormally === true
        ? null
        : (lit.lookAgainUtc.find((each) => each > nowUtc) ?? lit.lookAgainUtc.at(-1) ?? null);
    if (frees.length < most) {
      // What does not charge as forecast gives its room nobody knows when.
      frees.push(lit.amiss === null ? lit.readyUtc : null);
      return { job, waits: false, roomFromUtc: null, readyUtc: lit.readyUtc, lookNextUtc };
    }
    // The soonest of those that lie in the light; one whose end nobody knows frees no room.
    const known = frees.filter((each) => each !== null).sort();
    const [soonest] = known;
    if (soonest === undefined) return { job, waits: true, roomFromUtc: null, readyUtc: null, lookNextUtc };
    const roomFromUtc = soonest > nowUtc ? soonest : nowUtc;
    const takesMs = lit.readyUtc === null ? null : Date.parse(lit.readyUtc) - Date.parse(lit.sinceUtc);
    const readyUtc = takesMs === null ? null : new Date(Date.parse(roomFromUtc) + takesMs).toISOString();
    frees.splice(frees.indexOf(soonest), 1, readyUtc);
    return { job, waits: true, roomFromUtc, readyUtc, lookNextUtc };
  });
}

/**
 * The watches under the lights of a shop: which lies where, since when, the longest first; which waits for room and until
 * when; which is to be looked at now, is likely ready, or has something amiss. A watch that waits is not called ready: its
 * hours of light were counted as if it had them; nor is one with something amiss.
 */
export function lightRack<T extends { readonly lit: Lit | null }>(
  jobs: readonly T[],
  lightPlaces: readonly LightPlaceTool[],
  nowUtc: string,
): LightRack<T & { readonly lit: Lit }> {
  type Under = T & { readonly lit: Lit };
  const lit = jobs
    .filter((job): job is Under => job.lit !== null)
    .sort((a, b) => a.lit.sinceUtc.localeCompare(b.lit.sinceUtc));
  const lost = lit.filter(({ lit: { placeId } }) => !lightPlaces.some(({ id }) => id === placeId));
  const places = [
    ...lightPlaces.map((place) => ({
      place,
      watches: queued(
        lit.filter((job) => job.lit.placeId === place.id),
        place.watches,
        nowUtc,
      ),
    })),
    ...(lost.length > 0 ? [{ place: null, watches: queued(lost, Infinity, nowUtc) }] : []),
  ];
  const inLight = places.flatMap(({ watches }) => watches.flatMap(({ job, waits }) => (waits ? [] : [job])));
  return {
    places,
    toLookAt: inLight.filter(({ lit: under }) => lookDue(under, nowUtc)),
    ready: inLight.filter(
      ({ lit: { readyUtc, amiss } }) => amiss === null && readyUtc !== null && readyUtc <= nowUtc,
    ),
    amiss: lit.filter((job) => job.lit.amiss !== null),
  };
}
