import { LinearProgress, Typography } from '@mui/material';
import { useWaiting } from '../api/waiting';

/** Stands where something is on its way; with the server away it says so, since then nothing is. */
export function Loading({ what }: { readonly what: string }) {
  const { away, awaySays } = useWaiting();
  return away ? (
    <Typography>{awaySays ?? 'The server is away.'} This view loads when the server is back.</Typography>
  ) : (
    <LinearProgress aria-label={`Loading ${what}`} />
  );
}
