import { CssBaseline, ThemeProvider } from '@mui/material';
import { SnackbarProvider } from 'notistack';
import { lazy, useEffect } from 'react';
import { createBrowserRouter, Outlet, RouterProvider } from 'react-router';
import { SWRConfig } from 'swr';
import { startLive } from '../api/resources';
import { ServerAway } from '../api/http';
import { fetchAllStages } from '../stages';
import { DayStart } from '../views/DayStart';
import { NoSuchPage } from '../views/NoSuchPage';
import { KeysProvider } from './keys/KeysProvider';
import { ScreenBroke } from './ScreenBroke';
import { Shell } from './Shell';
import { theme } from './theme';

const loadJobView = () => import('../job/JobView');
const loadNewJob = () => import('../views/NewJob');
const JobView = lazy(loadJobView);
const NewJob = lazy(loadNewJob);
const Stock = lazy(() => import('../views/stock/StockView'));
const CellsView = lazy(() => import('../views/CellsView'));
const CustomerView = lazy(() => import('../views/CustomerView'));
const WatchView = lazy(() => import('../views/WatchView'));
const PolicyView = lazy(() => import('../views/PolicyView'));
const DevicesView = lazy(() => import('../views/DevicesView'));
const BookView = lazy(() => import('../views/book/BookView'));
const ToolsView = lazy(() => import('../views/book/ToolsView'));

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
      { path: 'stock/:part', element: <Stock /> },
      { path: 'cells', element: <CellsView /> },
      { path: 'watches/:watchId', element: <WatchView /> },
      { path: 'customers/:customerId', element: <CustomerView /> },
      { path: 'book', element: <BookView /> },
      { path: 'book/:segment', element: <BookView /> },
      { path: 'book/:segment/:recordId', element: <BookView /> },
      { path: 'tools', element: <ToolsView /> },
      { path: 'tools/:segment/:recordId', element: <ToolsView /> },
      { path: 'devices', element: <DevicesView /> },
      { path: 'policy', element: <PolicyView /> },
      { path: '*', element: <NoSuchPage what="page" /> },
    ],
  },
]);

/** What is not on the first screen is fetched this long after it, so that work goes on when the server is away. */
const REST_AFTER_MS = 800;

export function App() {
  useEffect(() => startLive(), []);
  useEffect(() => {
    const timer = setTimeout(
      () => void Promise.allSettled([loadJobView(), loadNewJob(), fetchAllStages()]),
      REST_AFTER_MS,
    );
    return () => clearTimeout(timer);
  }, []);
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
