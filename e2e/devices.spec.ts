import type { Page } from '@playwright/test';
import type { DeviceId, DriverId } from '../src/contract';
import {
  card,
  expect,
  expectAccessible,
  goTo,
  openJob,
  recorded,
  takenIn,
  test,
  typeAsDevice,
} from './counter';

/** A device reached in another way, chosen as a technician chooses it. */
async function connectBy(page: Page, device: string, driver: DriverId): Promise<void> {
  await goTo(page, '/devices');
  const region = page.getByRole('region', { name: device });
  await region.getByLabel(`${device}: connected by`).selectOption(driver);
  await expect(region.getByLabel(`${device}: connected by`)).toHaveValue(driver);
}

async function playedBack(page: Page, device: DeviceId, settings: object): Promise<void> {
  const answer = await page.request.post(`/api/devices/${device}`, { data: { settings } });
  expect(answer.status()).toBe(200);
}

test('a caliper that types: its figure goes where Take was pressed, and waiting can be stopped', async ({
  bench: page,
}) => {
  await connectBy(page, 'Caliper', 'caliper-keyboard');
  await expectAccessible(page, 'the devices');
  const id = await takenIn(page, 'unmarked');
  await goTo(page, `/jobs/${id}/open`);
  const form = card(page, 'Case back, measured');
  await form.getByLabel('Kind of back').selectOption('screwed, notched');
  const take = form.getByRole('button', { name: 'Pitch circle: take it from the caliper' });
  await take.click();
  await typeAsDevice(page, '+0034.20 mm');
  await expect(form.getByRole('textbox', { name: 'Pitch circle', exact: true })).toHaveValue('+0034.20 mm');
  await expect(form.getByRole('textbox', { name: 'Width of a notch', exact: true })).toHaveValue('');
  await form.getByRole('button', { name: 'Width of a notch: take it from the caliper' }).click();
  await form.getByRole('button', { name: 'Width of a notch: stop waiting for the caliper' }).click();
  await expect(
    form.getByRole('button', { name: 'Width of a notch: take it from the caliper' }),
  ).toBeVisible();
});

test('a meter on a serial line: wants its port, refuses what it is not set to, and gives the rest', async ({
  bench: page,
}) => {
  await connectBy(page, 'Bench meter', 'bench-meter-serial');
  const meter = page.getByRole('region', { name: 'Bench meter' });
  await meter.getByRole('button', { name: 'Try the device: Bench meter' }).click();
  await expect(meter.getByRole('status')).toContainText(
    'No serial port is selected on this computer. Open the devices page and choose the port of this device.',
  );
  await expect(meter.getByRole('button', { name: 'Choose the port: Bench meter' })).toBeVisible();
  await meter.getByText('Settings').click();
  await meter.getByRole('radio', { name: 'Recording' }).check();
  await meter.getByRole('button', { name: 'Save settings' }).click();
  await expect(meter.getByRole('button', { name: 'Choose the port: Bench meter' })).toHaveCount(0);
  await openJob(page, 'just-arrived', 'check');
  await page.getByRole('button', { name: 'Current: take it from the bench meter' }).click();
  await expect(
    page.getByText(/The meter shows V, “\+1\.55\d\d V DC”\. Set the meter to direct current/),
  ).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Current', exact: true })).toHaveValue('');
  await playedBack(page, 'bench-meter', {
    from: 'recording',
    baud: 9600,
    command: '',
    recorded: 'current',
  });
  await page.getByRole('button', { name: 'Current: take it from the bench meter' }).click();
  await expect(page.getByRole('textbox', { name: 'Current', exact: true })).toHaveValue(/^1\.0[345]\d* µA$/);
  // It has no pick-up for motor pulses.
  await expect(page.getByRole('button', { name: 'Detect pulses with the bench meter' })).toHaveCount(0);
});

test('a tester that is started by hand: its record is taken and judged, and nothing says that it is stopped from here', async ({
  bench: page,
}) => {
  await connectBy(page, 'Leak tester', 'leak-tester-folder');
  await expect(page.getByRole('region', { name: 'Leak tester' })).toContainText('from-tester');
  await playedBack(page, 'leak-tester', { from: 'recording', speed: 100 });
  const id = await takenIn(page, 'FOLDER-1', { service: 'reseal and test' });
  await recorded(page, id, 'arrive.crown', { crown: 'pushed home' });
  await recorded(page, id, 'seal.closed', {
    how: 'thumbs',
    seamEven: true,
    raisedClocks: [],
    seenFrom: null,
    interim: false,
  });
  await recorded(page, id, 'test.case', {
    freeVolumeCm3: 1.3,
    withinPercent: 5,
    diameterMm: null,
    thicknessMm: null,
  });
  await goTo(page, `/jobs/${id}/test`);
  const form = card(page, 'Record a test');
  await form.getByRole('radio', { name: 'Dry air' }).check();
  await form.getByLabel('Pressure').fill('3');
  await form.getByLabel('Watched for').fill('60');
  await form.getByRole('button', { name: 'Take the record from the tester' }).click();
  const running = form.getByRole('group', { name: 'The tester runs' });
  await expect(running).toContainText('This program cannot release its pressure.');
  await expect(running).not.toContainText('release pressure');
  await expect(form).toContainText('166 points from recorded-test.csv');
  await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText('under the limit of 50');

  await form.getByRole('button', { name: 'Remove' }).click();
  await connectBy(page, 'Leak tester', 'leak-tester-serial');
  await playedBack(page, 'leak-tester', { from: 'recording', baud: 9600, columns: '', speed: 12 });
  await goTo(page, `/jobs/${id}/test`);
  await form.getByRole('radio', { name: 'Dry air' }).check();
  await form.getByLabel('Pressure').fill('3');
  await form.getByLabel('Watched for').fill('60');
  await form.getByRole('button', { name: 'Take the record from the tester' }).click();
  await expect(running).toContainText('The tester shows 3 bar');
  await expect(running.getByRole('button', { name: /Watch \d+ s/ })).toHaveCount(0);
  await expect(form).toContainText('166 points from the tester, serial port');
});

/** A serial interface of the browser with one meter on it, which sends these bytes; it is granted once it is chosen. */
function plugIn(bytes: readonly string[]): void {
  let granted = false;
  let open = false;
  const port = {
    readable: null as ReadableStream<Uint8Array> | null,
    writable: null,
    getInfo: () => ({ usbVendorId: 1, usbProductId: 2 }),
    open: () => {
      if (open) return Promise.reject(new Error('open already'));
      open = true;
      port.readable = new ReadableStream({
        start(controller) {
          for (const text of bytes) controller.enqueue(new TextEncoder().encode(text));
        },
      });
      return Promise.resolve();
    },
    close: () => {
      open = false;
      return Promise.resolve();
    },
  };
  Object.defineProperty(navigator, 'serial', {
    value: {
      getPorts: () => Promise.resolve(granted ? [port] : []),
      requestPort: () => {
        granted = true;
        return Promise.resolve(port);
      },
    },
  });
}

test('a port is chosen once, opened for each reading and let go again', async ({ bench: page }) => {
  await page.addInitScript(plugIn, ['2 V DC\r\n1.5', '52 V DC\r\n']);
  await connectBy(page, 'Bench meter', 'bench-meter-serial');
  await page.reload();
  const meter = page.getByRole('region', { name: 'Bench meter' });
  await meter.getByRole('button', { name: 'Choose the port: Bench meter' }).click();
  await expect(meter.getByText('The port is selected for this computer.')).toBeVisible();
  for (const _ of ['first', 'again']) {
    await meter.getByRole('button', { name: 'Try the device: Bench meter' }).click();
    await expect(meter.getByText('The meter shows V, “1.552 V DC”.', { exact: false })).toBeVisible();
  }
});
