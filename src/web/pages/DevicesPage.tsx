import { Box, Button, Paper, Stack, Typography } from '@mui/material';
import { lazy, Suspense, useState } from 'react';
import { FormProvider } from 'react-hook-form';
import { Link } from 'react-router';
import { mutate } from 'swr';
import { capital } from '../../core/craft/judgement';
import {
  DEVICE_FAULTS,
  type DeviceAsk,
  type DeviceId,
  type DeviceSays,
  deviceSettings,
  type DeviceState,
} from '../../contract';
import { recordOfSamples } from '../../core/craft/devices';
import { type Measure, measures } from '../../core/craft/health';
import { LEAK_SIDES } from '../../core/logbook';
import { localTime } from '../../core/craft/time';
import type { Quantity } from '../../core/craft/units';
import { askDevice, DEVICES_PATH, faultWords, useDevices } from '../api/devices';
import { useBench } from '../api/bench';
import { failedInWords, postJson } from '../api/http';
import { useShop } from '../api/resources';
import { Loading } from '../kit/Loading';
import { Fold } from '../kit/Fold';
import { useChosenForm, whenSent } from '../kit/form';
import { LampAnswer } from '../kit/Lamp';
import { Choice, ListChoice, MeasureField, optionsOf } from '../kit/fields';
import { FileThumb } from '../job/files';
import { StageLayout } from '../kit/StageLayout';

const TraceFigure = lazy(() => import('../figures/TraceFigure'));

type Setting =
  | {
      readonly name: string;
      readonly label: string;
      readonly quantity: Quantity;
      readonly unit?: string;
      readonly optional?: boolean;
      readonly helper?: string;
    }
  | { readonly name: string; readonly label: string; readonly options: readonly string[] };

const NOISE: Setting = { name: 'noisePercent', label: 'Noise', quantity: 'figureOnly', unit: '%' };

const SETTINGS: Readonly<Record<DeviceId, readonly Setting[]>> = {
  caliper: [
    // Not taken from the caliper itself.
    { name: 'valueMm', label: 'Lies between the jaws', quantity: 'figureOnly', unit: 'mm' },
    { name: 'unit', label: 'Set to', options: ['mm', 'in'] },
  ],
  'bench-meter': [
    ...(Object.keys(measures) as Measure[]).map((measure) => ({
      name: measure,
      label: capital(measures[measure].words),
      quantity: measures[measure].quantity,
    })),
    {
      name: 'pulsesEveryS',
      label: 'A motor pulse every',
      quantity: 'durationS',
      optional: true,
      helper: 'blank: no pulses',
    },
    NOISE,
  ],
  'light-meter': [
    { name: 'lux', label: 'Light that falls on it', quantity: 'figureOnly', unit: 'lx' },
    NOISE,
  ],
  winder: [{ name: 'turnsAnHour', label: 'Turns', quantity: 'figureOnly', unit: 'turns/h' }],
  'leak-tester': [
    { name: 'stiffnessUmPerBar', label: 'The case gives by', quantity: 'figureOnly', unit: 'µm/bar' },
    { name: 'settlesPercent', label: 'Of it by and by', quantity: 'figureOnly', unit: '%' },
    { name: 'settlesInS', label: 'Settles in', quantity: 'durationS' },
    { name: 'volumeCm3', label: 'Free volume', quantity: 'figureOnly', unit: 'cm³' },
    {
      name: 'leakUgPerMin',
      label: 'Lets through at 2 bar',
      quantity: 'figureOnly',
      unit: 'µg/min',
      optional: true,
      helper: 'blank: a tight case',
    },
    { name: 'leaksAt', label: 'Leaks at', quantity: 'figureOnly', unit: 'o’clock' },
    { name: 'leakSide', label: 'Leaks on the', options: LEAK_SIDES },
    { name: 'gross', label: 'Wide open', options: ['no', 'yes'] },
    { name: 'noiseUm', label: 'Noise', quantity: 'micrometres' },
    { name: 'driftUmPerMin', label: 'Drifts', quantity: 'figureOnly', unit: 'µm/min' },
    { name: 'speed', label: 'Runs faster by', quantity: 'figureOnly', unit: '×' },
  ],
  camera: [{ name: 'shows', label: 'In front of it', options: ['movement', 'back', 'leaked cell'] }],
  'label-printer': [],
  'message-outbox': [],
  supplier: [
    { name: 'leadHours', label: 'Delivers after', quantity: 'hours' },
    { name: 'wrongPercent', label: 'Lines with another cell', quantity: 'figureOnly', unit: '%' },
    { name: 'shortPercent', label: 'Lines that come short', quantity: 'figureOnly', unit: '%' },
  ],
};

const WHAT_IT_IS: Readonly<Record<DeviceId, string>> = {
  caliper: 'Its figure goes into any length with “Take”. A real one that types needs no connecting.',
  'bench-meter':
    'Voltages, currents, coil, rate and motor pulses go into the readings of stage 4 with “Take”.',
  'light-meter': 'The light of a place, under Tools and on the light places, with “Take” or “Measure”.',
  winder: 'How often it turns goes into the plan of a watch charged by its rotor, at stage 5.',
  'leak-tester':
    'Runs the dry test and the blank run of stage 7, second by second, and shows where bubbles rise in its tank.',
  camera: 'Photographs go with what is found, wherever “From the camera” stands.',
  'label-printer': 'Prints the envelope label at stage 1.',
  supplier: 'Takes the orders of the stock page and delivers; now and then another cell, or too few.',
  'message-outbox': 'Tells the owner, by the way they left; it keeps no name and no number.',
};

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
      {last.says === 'trace' && <Typography>{last.points} points.</Typography>}
      {last.says === 'picture' && <FileThumb hash={last.attachment.hash} attachment={last.attachment} />}
    </Box>
  );
}

function DeviceCard({ device }: { readonly device: DeviceState }) {
  const { data: shop } = useShop();
  const { technicianId } = useBench();
  const [said, setSaid] = useState<readonly DeviceSays[]>([]);
  const [failed, setFailed] = useState<string | null>(null);
  const form = useChosenForm(deviceSettings[device.id], {
    values: device.settings,
  });
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
            aria-label={`Try it: ${device.name}`}
          >
            Try it
          </Button>
        )}
      </Stack>
      <Typography color="text.secondary">{WHAT_IT_IS[device.id]}</Typography>
      <Said said={said} />
      {device.output.map((each) => (
        <Typography key={`${each.atUtc}-${each.words}`} variant="body2">
          {shop ? localTime(each.atUtc, shop.shop.zone) : ''}:{' '}
          <Link to={`/jobs/${each.jobId}`}>{each.words}</Link>
        </Typography>
      ))}
      <Fold summary="What this stand-in simulates" sx={{ mt: 1, minHeight: 44, pt: 1, fontWeight: 400 }}>
        <FormProvider {...form}>
          <Stack
            component="form"
            spacing={1.5}
            noValidate
            aria-label={`${device.name} simulates`}
            onSubmit={(event) => void whenSent(form, (settings) => change({ settings }))(event)}
          >
            <Box sx={{ display: 'grid', gap: 1.5, gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' } }}>
              {SETTINGS[device.id].map((setting) =>
                'options' in setting ? (
                  <Choice
                    key={setting.name}
                    name={setting.name}
                    label={setting.label}
                    options={optionsOf(setting.options)}
                  />
                ) : (
                  <MeasureField
                    key={setting.name}
                    name={setting.name}
                    label={setting.label}
                    quantity={setting.quantity}
                    optional={setting.optional ?? false}
                    {...(setting.unit ? { unitShown: setting.unit } : {})}
                    {...(setting.helper ? { helper: setting.helper } : {})}
                  />
                ),
              )}
              <ListChoice
                name="fault"
                label="Fault"
                options={optionsOf(['none', ...DEVICE_FAULTS[device.id]])}
              />
            </Box>
            <Button type="submit" variant="outlined" sx={{ alignSelf: 'flex-start' }}>
              Simulate so
            </Button>
          </Stack>
        </FormProvider>
      </Fold>
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
            standing={ailing.length > 0 ? 'no' : there.length > 0 ? 'good' : 'open'}
            answer={
              ailing.length > 0 ? `${ailing.length} ailing` : `${there.length} of ${devices.length} connected`
            }
            reasons={
              ailing.length > 0
                ? ailing.map((device) => `${device.name}: ${device.fault ?? ''}.`)
                : ['Without a device everything can be typed: nothing waits for one.']
            }
          />
          <Typography color="text.secondary">
            These are stand-ins that ship with the program. A real device answers through the same door.
          </Typography>
        </>
      }
    />
  );
}
