import type { Page } from '@playwright/test';
import { movementOf } from '../src/testing/fixtures';
import {
  alsoRecord,
  card,
  expect,
  expectAccessible,
  goTo,
  jobId,
  openJob,
  recorded,
  setDevice,
  stands,
  takenIn,
  test,
} from './counter';

const lampOf = (page: Page) => page.getByRole('complementary', { name: 'Lamp' });

const SOUND = {
  restVoltageV: 1.56,
  loadedVoltageV: 1.5,
  currentUA: 1,
  stoppedCurrentUA: 0.2,
  coilKOhm: 1.8,
  lowestRunningV: 1.1,
  rateSPerDay: 0.1,
  pulsesEveryS: 1,
  noisePercent: 0,
  fault: 'none',
};

interface Case {
  readonly seen: string;
  readonly calibre: readonly [id: string, code: string];
  readonly meter?: Partial<Record<keyof typeof SOUND, number | null>>;
  /** Readings taken from the meter, in order. */
  readonly take: readonly string[];
  readonly pulses?: boolean;
  readonly looked?: (page: Page) => Promise<void>;
  readonly says: string;
  readonly also?: string;
}

const looked = (page: Page) => card(page, 'Examined');
const choose = (label: string, option: string) => (page: Page) =>
  looked(page)
    .getByLabel(label, { exact: true })
    .selectOption(option)
    .then(() => undefined);

const cases: readonly Case[] = [
  {
    seen: 'no steps, current tiny, crown out',
    calibre: ['orrelin-41-2', 'OR 41.2'],
    meter: { currentUA: 0.09 },
    take: ['Current'],
    looked: choose('Crown', 'pulled'),
    says: 'Stop lever on',
    also: 'Push the crown home',
  },
  {
    seen: 'a new cell, no pulses, coil infinite',
    calibre: ['orrelin-41-2', 'OR 41.2'],
    meter: { coilKOhm: 10_000, pulsesEveryS: null },
    take: ['Coil resistance'],
    pulses: true,
    looked: (page) =>
      looked(page)
        .getByRole('radiogroup', { name: 'Fresh cell fitted' })
        .getByRole('radio', { name: 'Yes' })
        .check(),
    says: 'Coil severed',
    also: '38.00 EUR',
  },
  {
    seen: 'pulses, coil good, hands still',
    calibre: ['pellorane-6180', 'PL 6180'],
    take: ['Coil resistance'],
    pulses: true,
    looked: choose('Hands or display', 'stands still'),
    says: 'Mechanical',
    also: 'Use brass or plastic tools only',
  },
  {
    seen: 'voltage collapses as the cell goes in',
    calibre: ['orrelin-41-2', 'OR 41.2'],
    take: [],
    looked: choose('When a cell is inserted', 'voltage collapses'),
    says: 'Short circuit',
    also: 'insulator in its place',
  },
  {
    seen: 'no current at all',
    calibre: ['orrelin-41-2', 'OR 41.2'],
    meter: { currentUA: 0 },
    take: ['Current'],
    says: 'Contact does not touch',
  },
  {
    seen: 'current far above its limit, and the circuit alone draws it',
    calibre: ['orrelin-62-3', 'OR 62.3'],
    meter: { currentUA: 9.2, stoppedCurrentUA: 7.1 },
    take: ['Current', 'Current, motor stopped'],
    says: 'Electrolyte or damp on the circuit',
    also: '15.00 EUR',
  },
  {
    seen: 'current over its limit, the train draws it',
    calibre: ['orrelin-62-3', 'OR 62.3'],
    meter: { currentUA: 3.6, stoppedCurrentUA: 0.4, lowestRunningV: 1.4 },
    take: ['Current', 'Current, motor stopped', 'Lowest running voltage'],
    says: 'Old oil and dirt',
    also: '45.00 EUR',
  },
  {
    seen: 'display scrambled after a change',
    calibre: ['dunmarrow-07-2', 'DM 07/2'],
    take: [],
    looked: async (page) => {
      await choose('Hands or display', 'display scrambled')(page);
      await looked(page).getByRole('radio', { name: 'Not used' }).check();
    },
    says: 'Reset contact not used',
  },
  {
    seen: 'hand in twos',
    calibre: ['orrelin-41-6', 'OR 41.6'],
    meter: { restVoltageV: 1.38, loadedVoltageV: 1.05 },
    take: ['Rest voltage'],
    looked: choose('Hands or display', 'steps in twos or fours'),
    says: 'Spent cell',
    also: 'This is its low-supply sign, not a fault',
  },
  {
    seen: 'nothing in five seconds, no seconds hand',
    calibre: ['orrelin-47-1', 'OR 47.1'],
    take: ['Rest voltage'],
    looked: async (page) => {
      await choose('Hands or display', 'stands still')(page);
      await looked(page).getByRole('textbox', { name: 'Watched for' }).fill('5');
    },
    says: 'Wait longer',
    also: 'wait 24 s',
  },
];

/** Takes one watch in and records what is seen, through the meter where it measures; the lamp says what ails it. */
async function seeTogether(page: Page, each: Case): Promise<void> {
  const id = await takenIn(page, 'unmarked', { complaint: [] });
  await recorded(page, id, 'identify.movement', movementOf(...each.calibre));
  await setDevice(page, 'bench-meter', { ...SOUND, ...each.meter });
  await goTo(page, `/jobs/${id}/check`);
  await expect(lampOf(page)).toBeVisible();
  if (each.pulses) {
    // The shop measures first: pulses are listened for before anything is opened.
    await expect(page.locator('#mat section').first()).toHaveAttribute('aria-label', 'Motor pulses');
    await card(page, 'Motor pulses')
      .getByRole('button', { name: 'Detect pulses with the bench meter' })
      .click();
    const heard = each.meter?.pulsesEveryS === null ? 'None' : 'Detected';
    await expect(card(page, 'Motor pulses').getByRole('radio', { name: heard })).toBeChecked();
    await card(page, 'Motor pulses').getByRole('button', { name: 'Record' }).click();
    await expect(card(page, 'Motor pulses')).toContainText('through the closed watch');
  }
  for (const name of each.take) {
    if ((await card(page, name).count()) === 0) await alsoRecord(page, name);
    await card(page, name)
      .getByRole('button', { name: `${name}: take it from the bench meter` })
      .click();
    await expect(card(page, name).getByRole('textbox', { name, exact: true })).not.toHaveValue('');
    await card(page, name).getByRole('button', { name: 'Record' }).click();
    await expect(stands(page, name)).toBeVisible();
  }
  if (each.looked) {
    await alsoRecord(page, 'Examined');
    await each.looked(page);
    await looked(page).getByRole('button', { name: 'Record' }).click();
  }
  await expect(lampOf(page)).toContainText(each.says);
  if (each.also) await expect(lampOf(page)).toContainText(each.also);
}

// Several to a test: each sits down at a counter of its own, which takes longer than the case.
for (const [first, some] of [
  ['first', cases.slice(0, 5)],
  ['other', cases.slice(5)],
] as const) {
  test(`what is seen together, the ${first} five`, async ({ bench: page }) => {
    for (const each of some) await test.step(each.seen, () => seeTogether(page, each));
  });
}

test('what a form asked for is answered once the meter has heard it', async ({ bench: page }) => {
  const id = await takenIn(page, 'unmarked', { complaint: [] });
  await setDevice(page, 'bench-meter', { ...SOUND, pulsesEveryS: null });
  await goTo(page, `/jobs/${id}/check`);
  const pulses = card(page, 'Motor pulses');
  await pulses.getByRole('button', { name: 'Record' }).click();
  await expect(pulses).toContainText('Motor pulses: choose yes or no.');
  await pulses.getByRole('button', { name: 'Detect pulses with the bench meter' }).click();
  await expect(pulses.getByRole('radio', { name: 'None' })).toBeChecked();
  await expect(pulses).not.toContainText('yes or no');
});

test('what cannot be told yet says so, and names the cheapest test that separates', async ({
  bench: page,
}) => {
  const id = await takenIn(page, 'unmarked', { service: 'diagnose', complaint: [] });
  await recorded(page, id, 'identify.movement', movementOf('orrelin-41-2', 'OR 41.2'));
  await goTo(page, `/jobs/${id}/check`);
  await choose('Hands or display', 'stands still')(page);
  await looked(page).getByRole('textbox', { name: 'Watched for' }).fill('60');
  await looked(page).getByRole('button', { name: 'Record' }).click();
  await expect(lampOf(page)).toContainText('Cannot tell yet');
  await expect(lampOf(page)).toContainText('Next check: separates ');
  await alsoRecord(page, 'Coil resistance');
  await card(page, 'Coil resistance')
    .getByRole('textbox', { name: 'Coil resistance', exact: true })
    .fill('OL');
  await expect(card(page, 'Coil resistance')).toContainText('Understood: open, kept as 10000 kΩ');
  await card(page, 'Coil resistance').getByRole('button', { name: 'Record' }).click();
  await expect(lampOf(page)).toContainText('Coil severed');
  await card(page, 'Finding')
    .getByRole('button', { name: /As the lamp suggests: coil severed/ })
    .click();
  await expect(card(page, 'Finding').getByLabel('Cause', { exact: true })).toHaveValue('coil severed');
  await card(page, 'Finding').getByRole('button', { name: 'Record' }).click();
  await expect(card(page, 'Finding')).toContainText('Finding: coil severed; next: new circuit');
  await expectAccessible(page, 'a diagnosis');
});

test('the next test is answered where it is asked: a look by a key, a reading by its figure', async ({
  bench: page,
}) => {
  const id = await takenIn(page, 'unmarked', { service: 'diagnose', complaint: [] });
  await recorded(page, id, 'identify.movement', movementOf('orrelin-41-2', 'OR 41.2'));
  await recorded(page, id, 'check.looked', {
    crown: null,
    shows: 'stands still',
    watchedSeconds: 60,
    atFitting: null,
    freshCell: true,
    resetUsed: null,
    signs: null,
  });
  await goTo(page, `/jobs/${id}/check`);
  const pulses = lampOf(page).getByRole('group', { name: /^Detect motor pulses/ });
  await expect(pulses.getByRole('button', { name: 'There are motor pulses' })).toBeVisible();
  await page.keyboard.press('q');
  await expect(stands(page, 'Motor pulses')).toContainText('through the closed watch');
  await expect(pulses).toHaveCount(0);
  // The next is a reading or a look: what is read has its form here and not on the mat.
  const causes = lampOf(page).getByRole('list', { name: 'Causes by probability' });
  await expect(causes).toContainText('Mechanical');
  await expect(lampOf(page)).toContainText('For it: nothing moves');
  await recorded(page, id, 'check.reading', {
    measure: 'currentUA',
    value: 1.1,
    loadKOhm: null,
    loadSeconds: null,
  });
  const gauge = lampOf(page).getByRole('img', { name: /^Current: 1\.1 µA; should lie between/ });
  // What the readings say together stands first; each by itself is a line that opens.
  await expect(gauge).toBeHidden();
  await lampOf(page).getByText('Current 1.1 µA').click();
  await expect(gauge).toBeVisible();
  // What the loupe shows costs a glance, and comes before the meter.
  await openJob(page, 'draws-too-much', 'check');
  await expect(lampOf(page).getByRole('group', { name: 'Seen with the loupe' })).toBeVisible();
  await recorded(page, jobId('draws-too-much'), 'check.looked', {
    crown: null,
    shows: 'stands still',
    watchedSeconds: 60,
    atFitting: null,
    freshCell: false,
    resetUsed: null,
    signs: [],
  });
  const coil = lampOf(page).getByRole('region', { name: 'Coil resistance' });
  await coil.getByRole('textbox', { name: 'Coil resistance' }).fill('2.1');
  await expect(page.getByRole('textbox', { name: 'Coil resistance' })).toHaveCount(1);
  await coil.getByRole('button', { name: 'Record' }).click();
  await expect(stands(page, 'Coil resistance')).toBeVisible();
  await lampOf(page).getByRole('button', { name: 'Open all' }).click();
  await expect(
    lampOf(page).getByRole('img', { name: /^Current: 4\.85 µA;.*earlier visits: 1\.6\d?, 2\.3/ }),
  ).toBeVisible();
});

test('a leak goes on the drawing of its layout with photograph and currents, to watch page and slip', async ({
  bench: page,
}) => {
  await openJob(page, 'overdue-at-the-cell', 'check');
  await alsoRecord(page, 'Leakage');
  const leak = card(page, 'Leakage');
  await leak.getByRole('img', { name: /^Layout of QB 15-7/ }).click({ position: { x: 150, y: 70 } });
  await expect(leak.getByRole('textbox', { name: 'To 3 o’clock' })).not.toHaveValue('');
  await leak.getByRole('radio', { name: 'Track', exact: true }).check();
  await leak.getByRole('radio', { name: 'Corrosion' }).check();
  await leak.getByLabel('What was done').fill('weak acid, alcohol, dried');
  await leak.getByRole('textbox', { name: 'Current before cleaning' }).fill('4.2');
  await setDevice(page, 'bench-meter', { ...SOUND, currentUA: 2.4 });
  await leak.getByRole('button', { name: 'Current after cleaning: take it from the bench meter' }).click();
  await leak.getByLabel('Supplier of the leaked cell').fill('Nettle & Quay Supplies');
  await leak.getByRole('button', { name: 'Take a photo' }).click();
  await expect(leak.getByRole('img', { name: /\.png$/ })).toBeVisible();
  await leak.getByRole('radio', { name: 'New circuit' }).check();
  await leak.getByRole('button', { name: 'Record' }).click();
  await expect(card(page, 'Leakage 1')).toContainText('corrosion at the track');
  await expect(card(page, 'Place of the leakage').getByRole('img', { name: /1 marked$/ })).toBeVisible();
  await expect(lampOf(page)).toContainText('After cleaning it still draws 2.4 µA');
  await expect(lampOf(page)).toContainText('New circuit: 38.00 EUR');
  await expect(lampOf(page)).toContainText('Use a trace of weak acid');
  await expectAccessible(page, 'a leak');
  await page.keyboard.press('9');
  await expect(page.getByRole('region', { name: 'Record for the owner' })).toContainText(
    'Leaked: corrosion at the track; cell of Nettle & Quay Supplies; weak acid, alcohol, dried; current 4.2 µA before, 2.4 µA after; new circuit.',
  );
  const { job } = (await (await page.request.get(`/api/jobs/${page.url().split('/')[4]}`)).json()) as {
    job: { watchId: string };
  };
  await goTo(page, `/watches/${job.watchId}`);
  const leaked = page.getByRole('region', { name: 'Leaked', exact: true });
  await expect(leaked.getByRole('img', { name: /Layout of QB 15-7.*1 marked/ })).toBeVisible();
  await expect(leaked).toContainText('current 4.2 µA before, 2.4 µA after');
});

test('the picture of a leak goes with the watch', async ({ bench: page }) => {
  await openJob(page, 'to-close', 'check');
  const { job } = (await (await page.request.get(`/api/jobs/${page.url().split('/')[4]}`)).json()) as {
    job: { watchId: string };
  };
  await goTo(page, `/watches/${job.watchId}`);
  const leaked = page.getByRole('region', { name: 'Leaked', exact: true });
  const photo = leaked.getByRole('link').getByRole('img');
  await expect(photo).toBeVisible();
  await expect
    .poll(() => photo.evaluate((img) => (img as HTMLImageElement).naturalWidth))
    .toBeGreaterThan(20);
});

test('the current over the visits stands beside its limit', async ({ bench: page }) => {
  await openJob(page, 'draws-too-much', 'check');
  const trend = page.getByRole('region', { name: 'Over the visits' });
  await expect(trend.getByRole('img', { name: /^Current\..*limit, OR 62\.3: 2\.4 µA/ })).toBeVisible();
  await expect(trend).toContainText('over its limit of 2.4 µA');
  const rate = {
    name: /^Rate\..*0\.14 s\/day; .*0\.31 s\/day; .*0\.46 s\/day\. what quartz usually keeps: ±0\.66 s\/day/,
  };
  await expect(trend.getByRole('img', rate)).toBeVisible();
  await expect(trend).toContainText(
    /Rising: \+0\.1\d s\/day a year over 3 visits\. At this rate it reaches its limit/,
  );
});

test('a field refused asks for the hand once, and lets it go on', async ({ bench: page }) => {
  const id = await takenIn(page, 'C2140-3');
  await goTo(page, `/jobs/${id}/check`);
  const current = page.getByRole('textbox', { name: 'Current', exact: true });
  const voltage = page.getByRole('textbox', { name: 'Rest voltage', exact: true });
  // A browser that is busy: what the page has put off for later comes late.
  await page.evaluate(() => {
    const held: (() => void)[] = [];
    window.setTimeout = ((then: () => void) => held.push(then)) as typeof setTimeout;
    addEventListener('free', () => held.forEach((then) => then()));
  });
  await current.fill('-1');
  await current.press('Enter');
  await expect(card(page, 'Current')).toContainText('plausible is 0 to 5000 µA');
  await expect(current).toBeFocused();
  await voltage.focus();
  await page.evaluate(() => dispatchEvent(new Event('free')));
  await page.keyboard.type('1.55');
  await expect(voltage).toHaveValue('1.55');
  await expect(current).toHaveValue('-1');
});

test('readings that cannot be are refused with the plausible range', async ({ bench: page }) => {
  const id = await takenIn(page, 'C2140-3');
  await goTo(page, `/jobs/${id}/check`);
  for (const [name, value, words] of [
    ['Current', '-1', 'plausible is 0 to 5000 µA'],
    ['Rest voltage', '30', 'plausible is 0 to 4.5 V'],
  ] as const) {
    await page.getByRole('textbox', { name, exact: true }).fill(value);
    await page.getByRole('textbox', { name, exact: true }).press('Enter');
    await expect(card(page, name)).toContainText(words);
    await expect(page.getByRole('textbox', { name, exact: true })).toHaveValue(value);
  }
  // A load other than the one the threshold is known for is not judged.
  await page.getByRole('textbox', { name: 'Rest voltage', exact: true }).fill('1.55');
  await page.getByRole('textbox', { name: 'Rest voltage', exact: true }).press('Enter');
  await recorded(page, id, 'cell.found', { marking: '364', condition: 'clean' });
  await card(page, 'Voltage under load').getByRole('textbox', { name: 'Voltage under load' }).fill('1.3');
  await card(page, 'Voltage under load').getByRole('textbox', { name: 'Test load' }).fill('1');
  await card(page, 'Voltage under load').getByRole('button', { name: 'Record' }).click();
  await expect(card(page, 'Voltage under load')).toContainText('at 1 kΩ after 1 s');
  await expect(lampOf(page)).toContainText(
    'Measured at 1 kΩ, 1 s, but the limit is only known for 2 kΩ, 1 s',
  );
});
