import { Button, Dialog, DialogActions, DialogContent, DialogTitle, Stack, Typography } from '@mui/material';
import { type KeyboardEvent, lazy, Suspense, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Technician } from '../../contract';
import { setBench, useBench } from '../api/bench';

const AddTechnician = lazy(() => import('./AddTechnician'));
const BenchName = lazy(() => import('./BenchName'));

interface Props {
  readonly open: boolean;
  readonly technicians: readonly Technician[];
  readonly onClose: () => void;
  /** Nobody is picked yet: it does not close without one. */
  readonly mustPick: boolean;
}

/** Who works at this bench: stands on every entry made here. */
export function WhoIsHere({ open, technicians, onClose, mustPick }: Props) {
  const bench = useBench();
  const [adding, setAdding] = useState(false);
  const [naming, setNaming] = useState(false);
  /** Where a key pressed before anybody was picked wanted to go. */
  const [then, setThen] = useState<string | null>(null);
  const navigate = useNavigate();
  const pick = (id: string): void => {
    setBench({ technicianId: id });
    onClose();
    if (then !== null) void navigate(then);
    setThen(null);
  };
  const keepKey = ({ key, target, ctrlKey, metaKey, altKey }: KeyboardEvent): void => {
    if (key !== 'n' || ctrlKey || metaKey || altKey || target instanceof HTMLInputElement) return;
    setThen('/new');
  };
  return (
    <Dialog
      open={open}
      onKeyDown={keepKey}
      onClose={mustPick ? undefined : onClose}
      aria-labelledby="who-title"
      fullWidth
      maxWidth="xs"
    >
      <DialogTitle id="who-title">Who is at the bench?</DialogTitle>
      <DialogContent>
        <Stack spacing={1.5}>
          {then !== null && <Typography role="status">After that you can start a new job.</Typography>}
          {technicians.map((person, index) => (
            <Button
              key={person.id}
              variant="outlined"
              aria-pressed={person.id === bench.technicianId}
              onClick={() => pick(person.id)}
              autoFocus={index === 0}
              sx={{
                justifyContent: 'flex-start',
                ...(person.id === bench.technicianId ? { boxShadow: 'inset 0 0 0 2px currentColor' } : {}),
              }}
            >
              {person.name} ({person.initials})
            </Button>
          ))}
          {technicians.length === 0 && (
            <Typography>Nobody is on the list yet. Add yourself. Your initials sign the records.</Typography>
          )}
          {(adding || technicians.length === 0) && (
            <Suspense>
              <AddTechnician onAdded={pick} />
            </Suspense>
          )}
          {naming ? (
            <Suspense>
              <BenchName />
            </Suspense>
          ) : (
            <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
              <Typography>This bench is called {bench.name}.</Typography>
              <Button onClick={() => setNaming(true)}>Rename bench</Button>
            </Stack>
          )}
        </Stack>
      </DialogContent>
      <DialogActions>
        {!adding && technicians.length > 0 && <Button onClick={() => setAdding(true)}>Add someone</Button>}
        {!mustPick && <Button onClick={onClose}>Close</Button>}
      </DialogActions>
    </Dialog>
  );
}
