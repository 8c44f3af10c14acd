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
        {notFetched ? 'This view is not available yet' : 'This screen could not be displayed'}
      </Typography>
      <Typography sx={{ my: 2 }}>
        {notFetched
          ? 'The connection to the server was lost before this view was loaded. Your records are stored in this browser. Views that you opened before still work. Reload the page when the server is back.'
          : `Your records are safe: they are on the server or stored in this browser. Reload the page. If this happens again, report this message to the person in charge of the program: “${said}”.`}
      </Typography>
      <Button variant="contained" onClick={() => window.location.reload()}>
        Reload the page
      </Button>{' '}
      <Button href="/">Go to the rack</Button>
    </Box>
  );
}
