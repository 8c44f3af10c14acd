import { Box, Button, Paper, Stack, Typography } from '@mui/material';
import { lazy, Suspense, useState } from 'react';
import { FormProvider } from 'react-hook-form';
import { Link } from 'react-router';
import { mutate } from 'swr';
import {
  type DeviceAsk,
  type DeviceId,
  DEVICES,
  type DeviceSays,
  type DeviceState,
  type DriverId,
  driverOf,
  driverSettings,
  driversOf,
} from '../../contract';
import { recordOfSamples } from '../../core/craft/devices';
import { localTime } from '../../core/craft/time';
import { askDevice, DEVICES_PATH, faultWords, useDevices } from '../api/devices';
import { choosePort } from '../api/drivers/serialPort';
import { useBench } from '../api/bench';
import { failedInWords, postJson } from '../api/http';
import { useShop } from '../api/resources';
import { DescribedField } from '../kit/DescribedField';
import { Loading } from '../kit/Loading';
import { Fold } from '../kit/Fold';
import { useChosenForm, submitHandler } from '../kit/form';
import { LampAnswer } from '../kit/Lamp';
import { NativeSelect } from '../kit/NativeSelect';
import { FileThumb } from '../job/files';
import { StageLayout } from '../kit/StageLayout';

const TraceFigure = lazy(() => import('../figures/TraceFigure'));

/** Whether a driver only simulates its device. */
const isStandIn = (driver: DriverId): boolean => driverOf(driver).faults !== undefined;

/** What each device can be tried with here; printing and messages want a job. */
const TRIES: Partial<Record<DeviceId, (technicianId: string) => DeviceAsk>> = {
  caliper: () => ({ ask: 'length' }),
  'bench-meter': () => ({ ask: 'measure', measure: 'currentUA' }),
  'light-meter': () => ({ ask: 'light' }),
  winder: () => ({ ask: 'turns' }),
  'leak-tester': () => ({ ask: 'trace', pressureBar: 3, seconds: 60 }),
  camera: (technicianId) => ({ ask: 'picture', technicianId }),
};

function Said({ said }: { readonly said: readonly DeviceSays[] }) {
  const samples = said.flatMap((each) => (each.says === 'sample' ? [each.sample] : []));
  const last = said.at(-1);
  if (!last) return null;
  const fault = faultWords(last);
  return (
    <Box role="status" sx={{ mt: 1 }}>
      {samples.length > 0 && (
        <Suspense>
          <TraceFigure record={recordOfSamples(samples)} />
        </Suspense>
      )}
      {fault && <Typography sx={{ fontWeight: 700 }}>■ {fault}</Typography>}
      {last.says === 'figure' && (
        <Typography variant="mark" component="p">
          {last.text}
        </Typography>
      )}
      {last.says === 'waiting' && <Typography>{last.words} …</Typography>}
      {last.says === 'trace' && <Typography>{last.points} points.</Typography>}
      {last.says === 'record' && <Typography>The record came: {last.name}.</Typography>}
      {last.says === 'picture' && <FileThumb hash={last.attachment.hash} attachment={last.attachment} />}
    </Box>
  );
}

/** The settings of the driver that reaches a device. */
function DriverForm({
  device,
  onSave,
}: {
  readonly device: DeviceState;
  readonly onSave: (settings: object) => Promise<void>;
}) {
  const { fields } = driverOf(device.driver);
  const form = useChosenForm(driverSettings(device.driver).schema, { values: device.settings });
  if (Object.keys(fields).length === 0) return null;
  return (
    <Fold
      summary={isStandIn(device.driver) ? 'What this stand-in simulates' : 'Settings'}
      sx={{ mt: 1, minHeight: 44, pt: 1, fontWeight: 400 }}
    >
      <FormProvider {...form}>
        <Stack
          component="form"
          spacing={1.5}
          noValidate
          aria-label={`${device.name}, settings`}
          onSubmit={(event) => void submitHandler(form, onSave)(event)}
        >
          <Box sx={{ display: 'grid', gap: 1.5, gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' } }}>
            {Object.entries(fields).map(([name, spec]) => (
              <DescribedField key={name} name={name} spec={spec} />
            ))}
          </Box>
          <Button type="submit" variant="outlined" sx={{ alignSelf: 'flex-start' }}>
            Save settings
          </Button>
        </Stack>
      </FormProvider>
    </Fold>
  );
}

/** What has to be done once on this computer, or at the device, before it can be asked. */
function Preparation({ device }: { readonly device: DeviceState }) {
  const [said, setSaid] = useState<string | null>(null);
  if (device.folder !== null)
    return (
      <Typography>
        Have the tester write its files into{' '}
        <Typography component="span" sx={{ fontWeight: 700, overflowWrap: 'anywhere' }}>
          {device.folder}
        </Typography>
        . The file that comes after “Take the record from the tester” belongs to that test.
      </Typography>
    );
  if (!('from' in device.settings) || device.settings.from !== 'serial port') return null;
  const choose = async (): Promise<void> => {
    setSaid((await choosePort(device.driver)) ?? 'The port is selected for this computer.');
  };
  return (
    <Stack direction="row" spacing={1.5} sx={{ alignItems: 'center', mt: 1 }}>
      <Button variant="outlined" onClick={() => void choose()} aria-label={`Choose the port: ${device.name}`}>
        Choose the port
      </Button>
      {said && <Typography role="status">{said}</Typography>}
    </Stack>
  );
}

/** How a device is reached, where there is more than one way. */
function DriverChoice({
  device,
  onChoose,
}: {
  readonly device: DeviceState;
  readonly onChoose: (driver: DriverId) => void;
}) {
  const drivers = driversOf(device.id);
  if (drivers.length === 1) return null;
  return (
    <Box sx={{ mt: 1.5, mb: 0.5, maxWidth: 360 }}>
      <NativeSelect
        label={`${device.name}: connected by`}
        value={device.driver}
        options={drivers.map((id) => ({ value: id, label: driverOf(id).name }))}
        onChange={(id) => {
          const driver = drivers.find((each) => each === id);
          if (driver !== undefined) onChoose(driver);
        }}
      />
    </Box>
  );
}

function DeviceCard({ device }: { readonly device: DeviceState }) {
  const { data: shop } = useShop();
  const { technicianId } = useBench();
  const [said, setSaid] = useState<readonly DeviceSays[]>([]);
  const [failed, setFailed] = useState<string | null>(null);
  const driver = driverOf(device.driver);
  const change = async (body: object): Promise<void> => {
    try {
      setFailed(null);
      await postJson(`${DEVICES_PATH}/${device.id}`, body);
      await mutate(DEVICES_PATH);
    } catch (error) {
      setFailed(failedInWords(error, 'nothing was changed.'));
    }
  };
  const trial = TRIES[device.id];
  const attempt = async (): Promise<void> => {
    if (!trial || technicianId === null) return;
    setSaid([]);
    await askDevice(device.id, trial(technicianId), (says) => setSaid((before) => [...before, says]));
  };
  const state = !device.connected ? '○ not connected' : device.fault ? `■ ${device.fault}` : '● connected';
  return (
    <Paper component="section" aria-label={device.name} sx={{ p: 2 }}>
      <Stack direction="row" spacing={1.5} sx={{ alignItems: 'center', flexWrap: 'wrap', rowGap: 1 }}>
        <Typography variant="h3" component="h2">
          {device.name}
        </Typography>
        <Typography sx={{ flexGrow: 1, fontWeight: 700 }}>{state}</Typography>
        <Button
          variant={device.connected ? 'outlined' : 'contained'}
          onClick={() => void change({ connected: !device.connected })}
          aria-label={`${device.connected ? 'Disconnect' : 'Connect'}: ${device.name}`}
        >
          {device.connected ? 'Disconnect' : 'Connect'}
        </Button>
        {trial && device.connected && (
          <Button
            variant="outlined"
            onClick={() => void attempt()}
            disabled={technicianId === null}
            aria-label={`Try the device: ${device.name}`}
          >
            Try the device
          </Button>
        )}
      </Stack>
      <Typography color="text.secondary">{DEVICES[device.id].what}</Typography>
      <DriverChoice
        device={device}
        onChoose={(chosen) => {
          setSaid([]);
          void change({ driver: chosen });
        }}
      />
      <Typography color="text.secondary">{driver.what}</Typography>
      <Preparation device={device} />
      <Said said={said} />
      {device.output.map((each) => (
        <Typography key={`${each.atUtc}-${each.words}`} variant="body2">
          {shop ? localTime(each.atUtc, shop.shop.zone) : ''}:{' '}
          <Link to={`/jobs/${each.jobId}`}>{each.words}</Link>
        </Typography>
      ))}
      <DriverForm key={device.driver} device={device} onSave={(settings) => change({ settings })} />
      {failed && <Typography role="alert">{failed}</Typography>}
    </Paper>
  );
}

/** The devices of the bench: connected or not, what ails them, and what the stand-ins simulate. */
export default function DevicesPage() {
  const { data: devices } = useDevices();
  if (!devices) return <Loading what="the devices" />;
  const ailing = devices.filter((device) => device.connected && device.fault !== null);
  const there = devices.filter((device) => device.connected);
  const standIns = there.filter((device) => isStandIn(device.driver));
  return (
    <StageLayout
      mat={
        <>
          <Typography variant="h1">Devices</Typography>
          {devices.map((device) => (
            <DeviceCard key={device.id} device={device} />
          ))}
        </>
      }
      lamp={
        <>
          <LampAnswer
            question="At this counter"
            tone={ailing.length > 0 ? 'no' : there.length > 0 ? 'good' : 'open'}
            answer={
              ailing.length > 0 ? `${ailing.length} ailing` : `${there.length} of ${devices.length} connected`
            }
            reasons={
              ailing.length > 0
                ? ailing.map((device) => `${device.name}: ${device.fault ?? ''}.`)
                : ['No device is needed. You can enter every figure by hand.']
            }
          />
          {standIns.length > 0 && (
            <Typography color="text.secondary">
              {standIns.length === 1
                ? 'One device is a stand-in'
                : `${standIns.length} devices are stand-ins`}
              : figures from a stand-in are made up. Use it only to try the program.
            </Typography>
          )}
        </>
      }
    />
  );
}
