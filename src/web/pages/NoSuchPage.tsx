import { Button, Stack, Typography } from '@mui/material';
import { Link } from 'react-router';

/** An address that leads nowhere. */
export function NoSuchPage({ what }: { readonly what: string }) {
  return (
    <Stack spacing={2} sx={{ maxWidth: 480, mt: 4 }}>
      <Typography variant="h1">There is no such {what} here</Typography>
      <Typography>
        The address may be old or mistyped. The rack shows the jobs that wait; / finds any other.
      </Typography>
      <Button component={Link} to="/" variant="outlined" sx={{ alignSelf: 'flex-start' }}>
        To the start
      </Button>
    </Stack>
  );
}
