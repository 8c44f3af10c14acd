import { Button } from '@mui/material';
import { useSnackbar } from 'notistack';
import { useRef, useState } from 'react';
import type { DeviceAsk, DeviceId } from '../../contract';
import { askDevice, faultWords, useConnected } from '../api/devices';

interface Props {
  readonly device: DeviceId;
  readonly ask: DeviceAsk;
  readonly label: string;
  readonly onText: (text: string) => void;
}

/** Takes a figure from a connected device; while one is waited for, the same button stops that. Not there without a device. */
export function TakeButton({ device, ask, label, onText }: Props) {
  const connected = useConnected(device, ask.ask);
  const [busy, setBusy] = useState(false);
  const stop = useRef(new AbortController());
  const { enqueueSnackbar } = useSnackbar();
  if (!connected) return null;
  const take = async (): Promise<void> => {
    const own = new AbortController();
    stop.current = own;
    setBusy(true);
    const said = await askDevice(device, ask, undefined, own.signal);
    setBusy(false);
    if (own.signal.aborted) return;
    if (said.says === 'figure') onText(said.text);
    else enqueueSnackbar(faultWords(said) ?? 'The device sent no figure.', { variant: 'error' });
  };
  return (
    <Button
      onClick={() => (busy ? stop.current.abort() : void take())}
      aria-label={
        busy
          ? `${label}: stop waiting for the ${device.replace('-', ' ')}`
          : `${label}: take it from the ${device.replace('-', ' ')}`
      }
      sx={{ minWidth: 0 }}
    >
      {busy ? 'Stop' : 'Take'}
    </Button>
  );
}
