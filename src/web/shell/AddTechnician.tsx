import { Button, Stack, TextField } from '@mui/material';
import { type FormEvent, useState } from 'react';
import { mutate } from 'swr';
import { v7 } from 'uuid';
import { newTechnician } from '../../contract';
import { failedInWords, postJson } from '../api/http';

/** One more person of this shop, with the initials that seal the records. */
export default function AddTechnician({ onAdded }: { readonly onAdded: (id: string) => void }) {
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
        helperText={wrong ?? 'up to 4 letters'}
      />
      <Button type="submit" variant="contained">
        Add technician
      </Button>
    </Stack>
  );
}
