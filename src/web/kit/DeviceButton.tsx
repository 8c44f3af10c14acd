import { Button } from '@mui/material';
import { useSnackbar } from 'notistack';
import type { ReactNode } from 'react';
import type { Ask, DeviceAsk, DeviceId } from '../../contract';
import { askDevice, faultWords, useConnected } from '../api/devices';

interface Props {
  readonly device: DeviceId;
  /** What it is there for, also while it cannot be asked yet. */
  readonly does: Ask;
  readonly ask: DeviceAsk | null;
  readonly size?: 'small' | 'medium';
  /** Once the device has done it. */
  readonly onDone?: () => void;
  readonly children: ReactNode;
}

/** Has a connected device do one thing, and says what came of it; no button while it is not connected. */
export function DeviceButton({ device, does, ask, size = 'medium', onDone, children }: Props) {
  const connected = useConnected(device, does);
  const { enqueueSnackbar } = useSnackbar();
  if (!connected) return null;
  const go = async (): Promise<void> => {
    if (!ask) return;
    const said = await askDevice(device, ask);
    const fault = faultWords(said);
    enqueueSnackbar(fault ?? (said.says === 'done' ? said.words : ''), {
      variant: fault === null ? 'success' : 'error',
    });
    if (said.says === 'done') onDone?.();
  };
  return (
    <Button variant="outlined" size={size} disabled={ask === null} onClick={() => void go()}>
      {children}
    </Button>
  );
}
