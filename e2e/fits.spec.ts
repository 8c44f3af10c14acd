import type { Page } from '@playwright/test';
import { STAGES } from '../src/core/craft/policy';
import { atRest, expect, openJob, test } from './counter';

/** What stands on a screen of 1280 × 800 without scrolling, px. */
const SCREEN_PX = 700;
const MOST_WORDS = 90;

interface Fit {
  /** Where the last of what is not folded ends, from the top of the lamp, px. */
  readonly lampPx: number;
  readonly words: number;
  /** Forms that are taller than the screen, with their height. */
  readonly tall: readonly string[];
}

const fitOf = (page: Page): Promise<Fit> =>
  page.evaluate((most) => {
    const lamp = document.querySelector('[aria-label="Lamp"]');
    const whole = [...(lamp?.lastElementChild?.children ?? [])].filter(
      ({ tagName }) => tagName !== 'DETAILS',
    );
    const top = lamp?.getBoundingClientRect().top ?? 0;
    return {
      lampPx: Math.round(Math.max(0, ...whole.map((part) => part.getBoundingClientRect().bottom - top))),
      words: whole.reduce((sum, part) => sum + (part as HTMLElement).innerText.split(/\s+/).length, 0),
      tall: [...document.querySelectorAll('main section')]
        .filter((part) => part.querySelector('form') !== null)
        .map((part) => [part.getAttribute('aria-label'), part.getBoundingClientRect().height] as const)
        .filter(([, height]) => height > most)
        .map(([name, height]) => `${name ?? ''}: ${Math.round(height)} px`),
    };
  }, SCREEN_PX);

/** Ordinary jobs of the demo at the stage where each is. */
const ORDINARY = [
  ['just-arrived', 'arrive'],
  ['just-arrived', 'open'],
  ['part-awaited', 'open'],
  ['just-arrived', 'identify'],
  ['brought-with-it', 'identify'],
  ['just-arrived', 'check'],
  ['to-diagnose', 'check'],
  ['just-arrived', 'cell'],
  ['draws-too-much', 'cell'],
  ['conflict', 'cell'],
  ['just-arrived', 'seal'],
  ['to-close', 'seal'],
  ['just-arrived', 'test'],
  ['to-set-and-prove', 'set'],
  ['ready-to-sign', 'handback'],
] as const;

test('of an ordinary job each stage’s lamp says what decides on one screen, and no form is taller', async ({
  bench: page,
}) => {
  // Every stage is among them.
  expect(new Set(ORDINARY.map(([, stage]) => stage))).toEqual(new Set(STAGES));
  for (const [key, stage] of ORDINARY) {
    await openJob(page, key, stage);
    await expect
      .poll(
        async () => {
          await atRest(page);
          const { lampPx, words, tall } = await fitOf(page);
          return {
            at: `${key}, ${stage}`,
            lamp: lampPx > 0 && lampPx <= SCREEN_PX ? 'fits' : `${lampPx} px`,
            words: words > 0 && words <= MOST_WORDS ? 'few' : `${words} words`,
            tall,
          };
        },
        { timeout: 10_000 },
      )
      .toEqual({ at: `${key}, ${stage}`, lamp: 'fits', words: 'few', tall: [] });
  }
});

test('what is folded opens by its line, and all of it by a key', async ({ bench: page }) => {
  await openJob(page, 'to-close', 'seal');
  const lamp = page.getByRole('complementary', { name: 'Lamp', exact: true });
  const old = lamp.getByText('Its inside diameter when new was');
  await expect(lamp.getByText('The old ring, measured:')).toBeVisible();
  await expect(old).toBeHidden();
  await lamp.getByText('The old ring, measured:').click();
  await expect(old).toBeVisible();
  await lamp.getByText('The old ring, measured:').click();
  await expect(old).toBeHidden();
  await page.keyboard.press('l');
  await expect(old).toBeVisible();
  await expect(lamp.getByText('Thumbs first')).toBeVisible();
  await page.keyboard.press('l');
  await expect(old).toBeHidden();
});
