import { Button, Stack, Typography } from '@mui/material';
import { Link } from 'react-router';

/** An address that leads nowhere. */
export function NoSuchPage({ what }: { readonly what: string }) {
  return (
    <Stack spacing={2} sx={{ maxWidth: 480, mt: 4 }}>
      <Typography variant="h1">There is no such {what} here</Typography>
      <Typography>
        The address may be old or mistyped. The rack shows the waiting jobs. Press / to find any other job.
      </Typography>
      <Button component={Link} to="/" variant="outlined" sx={{ alignSelf: 'flex-start' }}>
        Go to the rack
      </Button>
    </Stack>
  );
}
