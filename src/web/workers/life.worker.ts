import { expose } from 'comlink';
import { DRAWS, type LifeForecast, type LifeInput, openDraws } from '../../core/craft/life';

/** So many at a time, that a message to stop is heard between. */
const AT_ONCE = 500;
const breath = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

/** How often each card asked: only its last question counts. */
const asked = new Map<string, number>();

function next(card: string): number {
  const count = (asked.get(card) ?? 0) + 1;
  asked.set(card, count);
  return count;
}

/** Draws forecasts beside the page, telling how far it is; a newer question or a stop ends an older one. */
const worker = {
  stop(card: string): void {
    next(card);
  },
  /** The forecasts in the order of the inputs, or null where it was stopped. */
  async forecast(
    card: string,
    inputs: readonly LifeInput[],
    onProgress: (share: number) => void,
  ): Promise<readonly LifeForecast[] | null> {
    const mine = next(card);
    const done: LifeForecast[] = [];
    for (const input of inputs) {
      const draws = openDraws(input);
      let made = 0;
      while (made < DRAWS) {
        made = draws.draw(AT_ONCE);
        onProgress((done.length + made / DRAWS) / inputs.length);
        await breath();
        if (asked.get(card) !== mine) return null;
      }
      done.push(draws.forecast());
    }
    return done;
  },
};
export type LifeWorker = typeof worker;

expose(worker);
