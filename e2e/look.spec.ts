import type { Page } from '@playwright/test';
import { STAGES } from '../src/core/craft/policy';
import { atRest, expect, expectAccessible, goTo, jobId, openJob, test } from './counter';

const COLOUR_RULES = ['color-contrast', 'link-in-text-block'];

/** Passes by day, and by night with all that colours decide: nothing else of a page changes with them. */
async function expectAccessibleInBoth(page: Page, what: string, options = {}): Promise<void> {
  await expectAccessible(page, what, options);
  await page.emulateMedia({ colorScheme: 'dark' });
  await expectAccessible(page, `${what}, by night`, { ...options, runOnly: COLOUR_RULES });
  await page.emulateMedia({ colorScheme: 'light' });
}

test.describe('every view passes the axe check', () => {
  for (const stage of STAGES) {
    test(`stage ${stage}: with two cells, signed, and with every fact opened that is not asked of every job`, async ({
      bench: page,
    }) => {
      await openJob(page, 'two-cells', stage);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      await atRest(page);
      await expectAccessibleInBoth(page, stage);
      await openJob(page, 'waits-for-owner', stage);
      await expectAccessible(page, `${stage} of a signed job`);
      await openJob(page, 'draws-too-much', stage);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      const more = page.getByRole('combobox', { name: /^More to record/ });
      while ((await more.count()) > 0) {
        await more.click();
        await page.getByRole('listbox').getByRole('option').first().click();
      }
      for (const line of await page.getByRole('main').getByRole('button', { expanded: false }).all()) {
        if ((await line.count()) > 0) await line.click();
      }
      await expectAccessibleInBoth(page, `${stage}, opened`);
    });
  }

  for (const [what, paths] of [
    [
      'at the counter',
      [
        '/',
        '/new',
        '/nowhere',
        `/jobs/${jobId('conflict')}/check`,
        `/jobs/${jobId('worn-engraving')}/identify`,
      ],
    ],
    [
      'shop pages',
      ['/stock', '/cells', '/policy', '/devices', '/tools', '/tools/wrenches/new', '/tools/blades/knife'],
    ],
    [
      'the book',
      [
        '/book',
        '/book/calibres/quillbeck-22-4',
        '/book/calibres/new',
        '/book/cases/c2140-3',
        '/book/cases/k61-08',
      ],
    ],
  ] as const) {
    test(`the other views, ${what}`, async ({ bench: page }) => {
      for (const path of paths) {
        await page.goto(path);
        await expect(page.getByRole('navigation', { name: 'Rack' }).getByRole('link').first()).toBeVisible();
        await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
        await atRest(page);
        await expectAccessibleInBoth(page, path, { withRack: path === '/' });
      }
    });
  }

  test('the dialogs', async ({ page, counter }) => {
    await page.goto(counter.url);
    await expect(page.getByRole('dialog', { name: 'Who is at the bench?' })).toBeVisible();
    await atRest(page);
    await expectAccessible(page, 'who');
    await page.getByRole('button', { name: /Milo/ }).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
    for (const [key, name] of [
      ['?', 'Keys'],
      ['/', 'Find'],
    ] as const) {
      await page.keyboard.press(key);
      await expect(page.getByRole('dialog', { name })).toBeVisible();
      await atRest(page);
      await expectAccessibleInBoth(page, name);
      await page.keyboard.press('Escape');
      await expect(page.getByRole('dialog')).toHaveCount(0);
    }
  });
});

/** What makes the page wider than its window, by name, so that a failure says it. */
const sticksOut = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const { scrollWidth, clientWidth } = document.documentElement;
    if (scrollWidth === clientWidth) return [];
    return [
      `${scrollWidth - clientWidth} px over`,
      ...[...document.querySelectorAll('body *')]
        .map((each) => ({ each, box: each.getBoundingClientRect() }))
        .filter(({ box }) => box.right > clientWidth + 1)
        .map(
          ({ each, box }) =>
            `${each.tagName} ${each.className} ${box.left}..${box.right} ${each.textContent.slice(0, 40)}`,
        ),
    ];
  });

test.describe('fits the screen', () => {
  for (const [what, paths] of [
    [
      'the views',
      ['/', '/new', '/stock', '/cells', '/book', '/book/calibres/quillbeck-22-4', '/policy', '/devices'],
    ],
    ['the stages', STAGES.map((stage) => `/jobs/${jobId('two-cells')}/${stage}`)],
  ] as const) {
    test(`${what}: nothing runs off to the side on a wide screen, a tablet, a phone, and enlarged twice`, async ({
      bench: page,
    }) => {
      for (const path of paths) {
        await goTo(page, path);
        await expect(page.getByRole('main')).not.toBeEmpty();
        for (const [width, height] of [
          [390, 844],
          // 1280 × 800 at 200 %.
          [640, 400],
          [768, 1024],
          [1024, 768],
          [1280, 800],
        ] as const) {
          // A busy machine draws the narrow page later: what counts is how it stays. Chromium may leave the media queries
          // of a rule as they were that is added in the moment of the change: a change across all of them asks them anew.
          await expect(async () => {
            await page.setViewportSize({ width: 1500, height });
            await page.setViewportSize({ width, height });
            await atRest(page);
            expect(await sticksOut(page), `${path}, ${width} px wide`).toEqual([]);
          }).toPass({ timeout: 20_000 });
        }
      }
    });
  }

  test('on a phone the rack is a drawer', async ({ rack: page, tickets }) => {
    await page.setViewportSize({ width: 390, height: 844 });
    await expect(page.getByRole('navigation', { name: 'Rack' })).toHaveCount(0);
    await page.getByRole('button', { name: 'Show the rack' }).click();
    await page
      .getByRole('navigation', { name: 'Rack' })
      .getByRole('link', { name: new RegExp(tickets.of('to-close')) })
      .click();
    await expect(page).toHaveURL(new RegExp(jobId('to-close')));
    await expect(page.getByRole('navigation', { name: 'Rack' })).toHaveCount(0);
  });

  test('touch targets on the mat are 44 px high', async ({ bench: page }) => {
    const session = await page.context().newCDPSession(page);
    await session.send('Emulation.setTouchEmulationEnabled', { enabled: true });
    await openJob(page, 'to-close', 'seal');
    await expect.poll(() => page.evaluate(() => matchMedia('(pointer: coarse)').matches)).toBe(true);
    await expect(page.getByRole('listitem', { name: 'Groove' })).toBeVisible();
    for (const button of await page.getByRole('main').getByRole('button').all()) {
      const box = await button.boundingBox();
      expect(box?.height ?? 44).toBeGreaterThanOrEqual(43.9);
    }
    await session.send('Emulation.setTouchEmulationEnabled', { enabled: false });
    await session.detach();
  });
});

test('no button of a stage breaks its words', async ({ bench: page }) => {
  for (const stage of STAGES) {
    await openJob(page, 'draws-too-much', stage);
    await atRest(page);
    const broken = await page.getByRole('main').evaluate((main) =>
      [...main.querySelectorAll('.MuiButton-root')].flatMap((button) => {
        const range = document.createRange();
        range.selectNodeContents(button);
        const lines = new Set([...range.getClientRects()].map(({ bottom }) => Math.round(bottom / 12)));
        return lines.size > 2 ? [button.textContent] : [];
      }),
    );
    expect([stage, broken]).toEqual([stage, []]);
  }
});

test('on paper stands what is recorded, by day, without what is pressed', async ({ bench: page }) => {
  await page.emulateMedia({ media: 'print', colorScheme: 'dark' });
  await openJob(page, 'to-close', 'check');
  await expect(page.getByText('Rest voltage: ', { exact: false }).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Record' })).toHaveCount(0);
  await expect(page.getByRole('combobox', { name: /^More to record/ })).toHaveCount(0);
  expect(await page.evaluate(() => getComputedStyle(document.body).color)).toBe('rgb(34, 37, 43)');
});

test('a stage that nobody touches leaves the processor alone', async ({ bench: page }) => {
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  const scriptSeconds = async (): Promise<number> => {
    const { metrics } = await session.send('Performance.getMetrics');
    return metrics.find((metric) => metric.name === 'ScriptDuration')?.value ?? 0;
  };
  for (const stage of STAGES) {
    await openJob(page, 'to-close', stage);
    // A screen that renders itself over and over takes nearly all of the time, and never comes to rest.
    await expect
      .poll(
        async () => {
          const before = await scriptSeconds();
          // eslint-disable-next-line no-restricted-syntax -- the time over which it is measured
          await page.waitForTimeout(600);
          return (await scriptSeconds()) - before;
        },
        { message: `${stage} comes to rest` },
      )
      .toBeLessThan(0.2);
  }
});
