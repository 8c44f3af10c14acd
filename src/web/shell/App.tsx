import { CssBaseline, ThemeProvider } from '@mui/material';
import { SnackbarProvider } from 'notistack';
import { lazy, useEffect } from 'react';
import { createBrowserRouter, Outlet, RouterProvider } from 'react-router';
import { SWRConfig } from 'swr';
import { startLive } from '../api/resources';
import { ServerAway } from '../api/http';
import { fetchAllStages } from '../stages/stages';
import { DayStart } from '../pages/DayStart';
import { NoSuchPage } from '../pages/NoSuchPage';
import { KeysProvider } from '../kit/keys/KeysProvider';
import { ScreenBroke } from './ScreenBroke';
import { fetchDialogs, Shell } from './Shell';
import { useTheme } from '../kit/theme';

const loadJobView = () => import('../pages/JobPage');
const loadNewJob = () => import('../pages/NewJob');
const JobPage = lazy(loadJobView);
const NewJob = lazy(loadNewJob);
const Stock = lazy(() => import('../pages/stock/StockPage'));
const CellsPage = lazy(() => import('../pages/CellsPage'));
const CustomerPage = lazy(() => import('../pages/CustomerPage'));
const WatchPage = lazy(() => import('../pages/WatchPage'));
const PolicyPage = lazy(() => import('../pages/PolicyPage'));
const DevicesPage = lazy(() => import('../pages/DevicesPage'));
const BookPage = lazy(() => import('../pages/book/BookPage'));
const ToolsPage = lazy(() => import('../pages/book/ToolsPage'));

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
      { path: 'jobs/:jobId', element: <JobPage /> },
      { path: 'jobs/:jobId/:stage', element: <JobPage /> },
      { path: 'stock', element: <Stock /> },
      { path: 'stock/:part', element: <Stock /> },
      { path: 'cells', element: <CellsPage /> },
      { path: 'watches/:watchId', element: <WatchPage /> },
      { path: 'customers/:customerId', element: <CustomerPage /> },
      { path: 'book', element: <BookPage /> },
      { path: 'book/:segment', element: <BookPage /> },
      { path: 'book/:segment/:recordId', element: <BookPage /> },
      { path: 'tools', element: <ToolsPage /> },
      { path: 'tools/:segment/:recordId', element: <ToolsPage /> },
      { path: 'devices', element: <DevicesPage /> },
      { path: 'policy', element: <PolicyPage /> },
      { path: '*', element: <NoSuchPage what="page" /> },
    ],
  },
]);

/** What is not on the first screen is fetched this long after it, so that work goes on when the server is away. */
const REST_AFTER_MS = 800;

export function App() {
  const theme = useTheme();
  useEffect(() => startLive(), []);
  useEffect(() => {
    const timer = setTimeout(
      () => void Promise.allSettled([loadJobView(), loadNewJob(), fetchAllStages(), ...fetchDialogs()]),
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
