import {
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogContentText,
  DialogTitle,
  TextField,
} from '@mui/material';
import { type FormEvent, useId, useState } from 'react';

interface Props {
  readonly title: string;
  readonly text: string;
  readonly startReason: string;
  readonly action: string;
  readonly onReason: (reason: string) => void;
  readonly onClose: () => void;
}

/** Asks for the reason of a step that needs one. */
export function ReasonDialog({ title, text, startReason, action, onReason, onClose }: Props) {
  const [reason, setReason] = useState(startReason);
  const [missing, setMissing] = useState(false);
  const titleId = useId();
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    if (reason.trim() === '') setMissing(true);
    else onReason(reason.trim());
  };
  return (
    <Dialog open onClose={onClose} aria-labelledby={titleId} fullWidth maxWidth="xs">
      <form onSubmit={submit}>
        <DialogTitle id={titleId}>{title}</DialogTitle>
        <DialogContent>
          <DialogContentText sx={{ mb: 2 }}>{text}</DialogContentText>
          <TextField
            label="Reason"
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            error={missing}
            helperText={missing ? 'Reason: fill this in, e.g. “typed into the wrong job”.' : undefined}
            autoFocus
            fullWidth
            slotProps={{ htmlInput: { maxLength: 300 } }}
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained">
            {action}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
