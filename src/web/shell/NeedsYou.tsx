import { Button, Dialog, DialogActions, DialogContent, DialogTitle, Stack, Typography } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { capital } from '../../core/craft/judgement';
import { letGo, tryAgain, useWaiting, waitingInWords } from '../api/waiting';

/** Entries the server refused: each with why and what to do. They stay until a person settles them. */
export function NeedsYou() {
  const refused = useWaiting().entries.filter((entry) => entry.refused !== null);
  const [open, setOpen] = useState(false);
  if (refused.length === 0) return null;
  return (
    <>
      <Button color="error" variant="outlined" onClick={() => setOpen(true)}>
        ■ {refused.length} needs you
      </Button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        aria-labelledby="needs-title"
        fullWidth
        maxWidth="sm"
      >
        <DialogTitle id="needs-title">Needs you</DialogTitle>
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
                  <Button
                    component={Link}
                    to={`/jobs/${waiting.jobId}`}
                    onClick={() => setOpen(false)}
                    variant="outlined"
                  >
                    Open the job
                  </Button>
                  <Button onClick={() => void tryAgain(waiting)} variant="outlined">
                    Try again
                  </Button>
                  <Button onClick={() => void letGo(waiting.id)} color="error">
                    Let it go
                  </Button>
                </Stack>
              </Stack>
            ))}
          </Stack>
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setOpen(false)}>Close</Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
