import { CssBaseline, ThemeProvider } from '@mui/material';
import { SnackbarProvider } from 'notistack';
import { lazy, useEffect } from 'react';
import { createBrowserRouter, Outlet, RouterProvider } from 'react-router';
import { SWRConfig } from 'swr';
import { startLive } from '../api/resources';
import { ServerAway } from '../api/http';
import { DayStart } from '../views/DayStart';
import { NoSuchPage } from '../views/NoSuchPage';
import { KeysProvider } from './keys/KeysProvider';
import { ScreenBroke } from './ScreenBroke';
import { Shell } from './Shell';
import { theme } from './theme';

const JobView = lazy(() => import('../job/JobView'));
const NewJob = lazy(() => import('../views/NewJob'));
const Stock = lazy(() => import('../views/Stock'));
const BookView = lazy(() => import('../views/BookView'));

const router = createBrowserRouter([
  {
    element: (
      <KeysProvider>
        <Shell>
          <Outlet />
        </Shell>
      </KeysProvider>
    ),
    errorElement: <ScreenBroke />,
    children: [
      { index: true, element: <DayStart /> },
      { path: 'new', element: <NewJob /> },
      { path: 'jobs/:jobId', element: <JobView /> },
      { path: 'jobs/:jobId/:stage', element: <JobView /> },
      { path: 'stock', element: <Stock /> },
      { path: 'book', element: <BookView /> },
      { path: 'book/:calibreId', element: <BookView /> },
      { path: '*', element: <NoSuchPage what="page" /> },
    ],
  },
]);

export function App() {
  useEffect(() => startLive(), []);
  return (
    <ThemeProvider theme={theme}>
      <CssBaseline />
      <SWRConfig
        value={{
          revalidateOnFocus: true,
          errorRetryInterval: 2000,
          shouldRetryOnError: (error: unknown) => error instanceof ServerAway,
        }}
      >
        <SnackbarProvider
          maxSnack={3}
          autoHideDuration={6000}
          anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}
        >
          <RouterProvider router={router} />
        </SnackbarProvider>
      </SWRConfig>
    </ThemeProvider>
  );
}
