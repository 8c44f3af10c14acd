import {
  Dialog,
  DialogContent,
  DialogTitle,
  FormControlLabel,
  Stack,
  Switch,
  Typography,
} from '@mui/material';
import { setBench, useBench } from '../../api/bench';
import { useKeys } from './KeysProvider';

const KEY_SX = {
  minWidth: 64,
  textAlign: 'center',
  border: 1,
  borderColor: 'text.primary',
  borderRadius: 1,
  px: 1,
  fontSize: '1.05rem',
} as const;

/** The keys that work just now. */
export default function KeysOverlay({
  open,
  onClose,
}: {
  readonly open: boolean;
  readonly onClose: () => void;
}) {
  const { actions } = useKeys();
  const bench = useBench();
  const unique = [...new Map(actions.map((action) => [action.key, action])).values()];
  const stageKeys = unique.filter((action) => /^[1-9]$/.test(action.key));
  const rows = [
    ...unique.filter((action) => !/^[1-9]$/.test(action.key)).map(({ key, label }) => ({ key, label })),
    ...(stageKeys.length > 0 ? [{ key: '1–9', label: 'Open a stage of the job' }] : []),
    { key: 'Enter', label: 'Record the form' },
    { key: 'Esc', label: 'Leave the field' },
  ];
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="keys-title" maxWidth="sm" fullWidth>
      <DialogTitle id="keys-title">Keys</DialogTitle>
      <DialogContent>
        <Stack component="dl" spacing={1} sx={{ m: 0 }}>
          {rows.map(({ key, label }) => (
            <Stack key={key} direction="row" spacing={2} sx={{ alignItems: 'center' }}>
              <Typography component="dt" variant="mark" sx={KEY_SX}>
                {key}
              </Typography>
              <Typography component="dd" sx={{ m: 0 }}>
                {label}
              </Typography>
            </Stack>
          ))}
        </Stack>
        <Typography sx={{ mt: 2 }} color="text.secondary">
          A caliper that types fills in the next required measure. A scanned ticket opens its job. Both work
          wherever the focus is.
        </Typography>
        <FormControlLabel
          sx={{ mt: 1 }}
          control={
            <Switch checked={bench.singleKeys} onChange={(_, singleKeys) => setBench({ singleKeys })} />
          }
          label="Use single keys at this bench"
        />
      </DialogContent>
    </Dialog>
  );
}
