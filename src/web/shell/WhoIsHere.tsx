import {
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Stack,
  TextField,
  Typography,
} from '@mui/material';
import { type FormEvent, type KeyboardEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { mutate } from 'swr';
import { v7 } from 'uuid';
import { newTechnician, type Technician } from '../../contract';
import { setBench, useBench } from '../api/bench';
import { failedInWords, postJson } from '../api/http';

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
          {then !== null && <Typography role="status">Then on to a new job.</Typography>}
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
            <Typography>Nobody is on the list yet. Add yourself: your initials seal the records.</Typography>
          )}
          {(adding || technicians.length === 0) && <AddTechnician onAdded={pick} />}
          <TextField
            label="This bench is called"
            defaultValue={bench.name}
            onBlur={(event) => {
              const name = event.target.value.trim();
              if (name !== '') setBench({ name: name.slice(0, 40) });
            }}
          />
        </Stack>
      </DialogContent>
      <DialogActions>
        {!adding && technicians.length > 0 && <Button onClick={() => setAdding(true)}>Add someone</Button>}
        {!mustPick && <Button onClick={onClose}>Close</Button>}
      </DialogActions>
    </Dialog>
  );
}

function AddTechnician({ onAdded }: { readonly onAdded: (id: string) => void }) {
  const [name, setName] = useState('');
  const [initials, setInitials] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const add = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const person = newTechnician.safeParse({ id: v7(), name, initials: initials.toUpperCase() });
    if (!person.success) {
      setWrong(person.error.issues.map((issue) => issue.message).join(' '));
      return;
    }
    try {
      await postJson('/api/technicians', person.data);
      await mutate('/api/shop');
      onAdded(person.data.id);
    } catch (error) {
      setWrong(failedInWords(error, 'try again when it is back.'));
    }
  };
  return (
    <Stack component="form" spacing={1.5} onSubmit={(event) => void add(event)} sx={{ pt: 1 }}>
      <TextField label="Name" value={name} onChange={(event) => setName(event.target.value)} autoFocus />
      <TextField
        label="Initials"
        value={initials}
        onChange={(event) => setInitials(event.target.value)}
        error={wrong !== null}
        helperText={wrong ?? 'up to four letters'}
      />
      <Button type="submit" variant="contained">
        Add to the list
      </Button>
    </Stack>
  );
}
