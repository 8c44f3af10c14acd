import { TextField } from '@mui/material';
import { setBench, useBench } from '../api/bench';

/** What this bench is called, kept in this browser. */
export default function BenchName() {
  const { name: before } = useBench();
  return (
    <TextField
      label="Bench name"
      defaultValue={before}
      autoFocus
      onBlur={(event) => {
        const name = event.target.value.trim();
        if (name !== '') setBench({ name: name.slice(0, 40) });
      }}
    />
  );
}
