import { CssBaseline, ThemeProvider } from '@mui/material';
import { SnackbarProvider } from 'notistack';
import { lazy, useEffect } from 'react';
import { createBrowserRouter, Outlet, RouterProvider } from 'react-router';
import { SWRConfig } from 'swr';
import { startLive } from '../api/resources';
import { ServerAway } from '../api/http';
import { fetchAllStages, loadStage } from '../stages/stages';
import { DayStart } from '../pages/DayStart';
import { NoSuchPage } from '../pages/NoSuchPage';
import { KeysProvider } from '../kit/keys/KeysProvider';
import { dropStraySecondPresses } from '../kit/secondPress';
import { ScreenBroke } from './ScreenBroke';
import { fetchDialogs, Shell } from './Shell';
import { useTheme } from '../kit/theme';

const loadJobView = () => import('../pages/JobPage');
const loadNewJob = () => import('../pages/NewJob');
const JobPage = lazy(loadJobView);
const NewJob = lazy(loadNewJob);
/** By the first part of their address. */
const loadPage = {
  stock: () => import('../pages/stock/StockPage'),
  cells: () => import('../pages/CellsPage'),
  leaks: () => import('../pages/LeaksPage'),
  running: () => import('../pages/RunningPage'),
  light: () => import('../pages/LightPage'),
  customers: () => import('../pages/CustomerPage'),
  watches: () => import('../pages/WatchPage'),
  policy: () => import('../pages/PolicyPage'),
  devices: () => import('../pages/DevicesPage'),
  book: () => import('../pages/book/BookPage'),
  tools: () => import('../pages/book/ToolsPage'),
};
const Stock = lazy(loadPage.stock);
const CellsPage = lazy(loadPage.cells);
const LeaksPage = lazy(loadPage.leaks);
const RunningPage = lazy(loadPage.running);
const LightPage = lazy(loadPage.light);
const CustomerPage = lazy(loadPage.customers);
const WatchPage = lazy(loadPage.watches);
const PolicyPage = lazy(loadPage.policy);
const DevicesPage = lazy(loadPage.devices);
const BookPage = lazy(loadPage.book);
const ToolsPage = lazy(loadPage.tools);

/** The code of what an address shows, asked for at once: page and stage do not wait for one another. */
export function askCodeAhead(path: string): void {
  const [, page = '', , stage = ''] = path.split('/');
  const wanted =
    page === 'jobs'
      ? [loadJobView(), loadStage(stage)]
      : page === 'new'
        ? [loadNewJob()]
        : Object.hasOwn(loadPage, page)
          ? [loadPage[page as keyof typeof loadPage]()]
          : [];
  // What does not come is asked for again, and told, by the view itself.
  void Promise.allSettled(wanted);
}

/** What the first screen does without: of the job first, then what stands behind the counter. */
async function fetchTheRest(): Promise<void> {
  await Promise.allSettled([loadJobView(), loadNewJob(), fetchAllStages(), ...fetchDialogs()]);
  await Promise.allSettled(Object.values(loadPage).map((load) => load()));
}

const router = createBrowserRouter([
  {
    element: (
      <KeysProvider>
        <Shell>
          <Outlet />
        </Shell>
      </KeysProvider>
    ),
    errorElement: (
      <main>
        <ScreenBroke />
      </main>
    ),
    children: [
      {
        // A view that fails leaves rack and head where they are.
        errorElement: <ScreenBroke />,
        children: [
          { index: true, element: <DayStart /> },
          { path: 'new', element: <NewJob /> },
          { path: 'jobs/:jobId', element: <JobPage /> },
          { path: 'jobs/:jobId/:stage', element: <JobPage /> },
          { path: 'stock', element: <Stock /> },
          { path: 'stock/:part', element: <Stock /> },
          { path: 'cells', element: <CellsPage /> },
          { path: 'leaks', element: <LeaksPage /> },
          { path: 'running', element: <RunningPage /> },
          { path: 'light', element: <LightPage /> },
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
    ],
  },
]);

/** What is not on the first screen is fetched this long after it, so that work goes on when the server is away. */
const REST_AFTER_MS = 800;
/** And once the page has nothing else to do; it waits no longer than this for that. */
const IDLE_WITHIN_MS = 5000;

export function App() {
  const theme = useTheme();
  useEffect(() => startLive(), []);
  useEffect(dropStraySecondPresses, []);
  useEffect(() => {
    const timer = setTimeout(
      () => requestIdleCallback(() => void fetchTheRest(), { timeout: IDLE_WITHIN_MS }),
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
