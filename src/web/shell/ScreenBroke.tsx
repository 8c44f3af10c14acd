import { Box, Button, Typography } from '@mui/material';
import { useRouteError } from 'react-router';

/** How browsers say that a part of the program did not come. */
const NOT_FETCHED = /dynamically imported module|importing a module script|module script failed/i;

/** A screen that failed: says so, says what is safe, and gives the way back. */
export function ScreenBroke() {
  const error = useRouteError();
  const said = error instanceof Error ? error.message : 'no details';
  const notFetched = NOT_FETCHED.test(said);
  return (
    <Box sx={{ maxWidth: 560, mx: 'auto', mt: 8, p: 2 }} role="alert">
      <Typography variant="h1">
        {notFetched ? 'This view is not here yet' : 'This screen could not be shown'}
      </Typography>
      <Typography sx={{ my: 2 }}>
        {notFetched
          ? 'The server went away before it sent this view. What you recorded waits in this browser, and the views opened before go on working. Load the page again once the server answers.'
          : `What you recorded is safe: it is with the server, or waits in this browser. Load the page again; if it stays so, tell whoever looks after the program: “${said}”.`}
      </Typography>
      <Button variant="contained" onClick={() => window.location.reload()}>
        Load the page again
      </Button>{' '}
      <Button href="/">To the start</Button>
    </Box>
  );
}
