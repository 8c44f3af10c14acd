import { Button, Dialog, DialogActions, DialogContent, DialogTitle, Stack, Typography } from '@mui/material';
import { Link } from 'react-router';
import { capital } from '../../core/craft/judgement';
import type { WaitingEntry } from '../api/browserStore';
import { waitingInWords } from '../api/kept';
import { discardEntry, tryAgain } from '../api/waiting';

/** Each entry the server refused, with why and what to do. */
export default function NeedsYouDialog({
  refused,
  onClose,
}: {
  readonly refused: readonly WaitingEntry[];
  readonly onClose: () => void;
}) {
  return (
    <Dialog open onClose={onClose} aria-labelledby="needs-title" fullWidth maxWidth="sm">
      <DialogTitle id="needs-title">Needs a decision</DialogTitle>
      <DialogContent>
        <Stack spacing={2}>
          {refused.map((waiting) => (
            <Stack key={waiting.id} spacing={0.5}>
              <Typography sx={{ fontWeight: 700 }}>{capital(waitingInWords(waiting))}</Typography>
              <Typography>{waiting.refused?.detail}</Typography>
              {waiting.refused?.whatToDo && (
                <Typography color="text.secondary">{waiting.refused.whatToDo}</Typography>
              )}
              <Stack direction="row" spacing={1}>
                <Button component={Link} to={`/jobs/${waiting.jobId}`} onClick={onClose} variant="outlined">
                  Open the job
                </Button>
                <Button onClick={() => void tryAgain(waiting)} variant="outlined">
                  Retry
                </Button>
                <Button onClick={() => void discardEntry(waiting.id)} color="error">
                  Discard entry
                </Button>
              </Stack>
            </Stack>
          ))}
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
