import { Button, Stack, Typography } from '@mui/material';
import { lazy, Suspense, useState } from 'react';
import { useFormContext } from 'react-hook-form';
import type { TraceSample } from '../../../core/craft/devices';
import { askDevice, faultWords, useConnected } from '../../api/devices';
import type { Payloads } from '../../../core/logbook';
import { fieldsOf } from '../../kit/fields';

const TraceFigure = lazy(() => import('../../figures/TraceFigure'));
const testMade = fieldsOf<Payloads['test.made']>();

/** Runs the test on the connected tester: what it shows as it goes, and its figures into the form. */
export function OnTester() {
  const connected = useConnected('leak-tester');
  const form = useFormContext();
  const [samples, setSamples] = useState<readonly TraceSample[] | null>(null);
  const [running, setRunning] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const [pressureBar, seconds] = [testMade.useValue('pressureBar'), testMade.useValue('seconds')];
  const method = testMade.useValue('method');
  if (!connected || method !== 'dry air') return null;
  const ready = typeof pressureBar === 'number' && typeof seconds === 'number' && seconds >= 5;
  const run = async (): Promise<void> => {
    if (typeof pressureBar !== 'number' || typeof seconds !== 'number') return;
    setRunning(true);
    setFault(null);
    setSamples([]);
    const said = await askDevice('leak-tester', { ask: 'trace', pressureBar, seconds }, (says) => {
      if (says.says === 'sample') setSamples((before) => [...(before ?? []), says.sample]);
    });
    setRunning(false);
    setFault(
      said.says === 'trace' ? null : (faultWords(said) ?? 'The tester broke off: nothing was recorded.'),
    );
    if (said.says === 'trace') {
      form.setValue('deflectionStartUm', said.startUm, { shouldDirty: true });
      form.setValue('deflectionEndUm', said.endUm, { shouldDirty: true });
    }
  };
  return (
    <Stack spacing={1}>
      <Button
        variant="outlined"
        disabled={!ready || running}
        onClick={() => void run()}
        sx={{ alignSelf: 'flex-start' }}
      >
        {running ? 'The tester runs …' : 'Run it on the tester'}
      </Button>
      {!ready && (
        <Typography variant="body2" color="text.secondary">
          Pressure and duration first.
        </Typography>
      )}
      {fault && <Typography role="alert">{fault}</Typography>}
      {samples && samples.length > 0 && (
        <Suspense>
          <TraceFigure samples={samples} seconds={Number(seconds)} />
        </Suspense>
      )}
    </Stack>
  );
}
