/** The time the server lives in. The demo's starts at the demo day and runs. */
export interface Clock {
  nowUtc(): string;
}

/** A running clock, shifted so that it shows `startUtc` now; without one it shows the real time. */
export function runningClock(startUtc: string | null = null): Clock {
  const shift = startUtc === null ? 0 : Date.parse(startUtc) - Date.now();
  return { nowUtc: () => new Date(Date.now() + shift).toISOString() };
}
