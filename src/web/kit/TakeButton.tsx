import { Button } from '@mui/material';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import type { DeviceAsk, DeviceId } from '../../contract';
import { askDevice, faultWords, useConnected } from '../api/devices';

interface Props {
  readonly device: DeviceId;
  readonly ask: DeviceAsk;
  readonly label: string;
  readonly onText: (text: string) => void;
}

/** Takes a figure from a device that is connected; there is no such button while it is not. */
export function TakeButton({ device, ask, label, onText }: Props) {
  const connected = useConnected(device);
  const [busy, setBusy] = useState(false);
  const { enqueueSnackbar } = useSnackbar();
  if (!connected) return null;
  const take = async (): Promise<void> => {
    setBusy(true);
    const said = await askDevice(device, ask);
    setBusy(false);
    if (said.says === 'figure') onText(said.text);
    else enqueueSnackbar(faultWords(said) ?? 'The device gave no figure.', { variant: 'error' });
  };
  return (
    <Button
      onClick={() => void take()}
      disabled={busy}
      aria-label={`${label}: take it from the ${device.replace('-', ' ')}`}
      sx={{ minWidth: 0 }}
    >
      Take
    </Button>
  );
}
