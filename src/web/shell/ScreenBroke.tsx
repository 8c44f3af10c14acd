import { Box, Button, Typography } from '@mui/material';
import { useRouteError } from 'react-router';

/** A screen that failed: says so, says what is safe, and gives the way back. */
export function ScreenBroke() {
  const error = useRouteError();
  return (
    <Box component="main" sx={{ maxWidth: 560, mx: 'auto', mt: 8, p: 2 }} role="alert">
      <Typography variant="h1">This screen could not be shown</Typography>
      <Typography sx={{ my: 2 }}>
        What you recorded is safe: it is with the server, or waits in this browser. Load the page again; if it
        stays so, tell whoever looks after the program: “
        {error instanceof Error ? error.message : 'no details'}”.
      </Typography>
      <Button variant="contained" onClick={() => window.location.reload()}>
        Load the page again
      </Button>{' '}
      <Button href="/">To the start</Button>
    </Box>
  );
}
