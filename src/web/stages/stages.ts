import { type ComponentType, lazy, type LazyExoticComponent } from 'react';
import type { StageId } from '../../core/craft/policy';

const load: Readonly<Record<StageId, () => Promise<{ default: ComponentType }>>> = {
  arrive: () => import('./arrive/ArriveStage'),
  open: () => import('./open/OpenStage'),
  identify: () => import('./identify/IdentifyStage'),
  check: () => import('./check/CheckStage'),
  cell: () => import('./cell/CellStage'),
  seal: () => import('./seal/SealStage'),
  test: () => import('./waterTest/TestStage'),
  set: () => import('./set/SetStage'),
  handback: () => import('./handback/HandbackStage'),
};

/** Fetches the code of a stage by its name in an address; nothing where there is none of that name. */
export const loadStage = (name: string): Promise<unknown> =>
  Object.hasOwn(load, name) ? load[name as StageId]() : Promise.resolve();

/** Each stage is its own bundle, loaded when it is opened. */
export const stages: Readonly<Record<StageId, LazyExoticComponent<ComponentType>>> = {
  arrive: lazy(load.arrive),
  open: lazy(load.open),
  identify: lazy(load.identify),
  check: lazy(load.check),
  cell: lazy(load.cell),
  seal: lazy(load.seal),
  test: lazy(load.test),
  set: lazy(load.set),
  handback: lazy(load.handback),
};

/** Charts and photographs of a stage, which it draws where there are any. */
const loadFigures = (): readonly Promise<unknown>[] => [
  import('../figures/TrendChart'),
  import('../figures/LifeChart'),
  import('../figures/TraceFigure'),
  import('../figures/SideBySide'),
];

/** Said in the page's timeline once a job can go on without the server. */
export const STAGES_FETCHED_MARK = 'stages fetched';

/** Fetches the stages that were not opened yet, so that a job can go on when the server is away. */
export async function fetchAllStages(): Promise<void> {
  const identifier = import('./identify/identifier').then(({ fetchIdentifier }) => fetchIdentifier());
  const forecasts = import('./cell/useForecasts').then(({ fetchForecasts }) => fetchForecasts());
  const leaks = import('./waterTest/leakWorker').then(({ fetchLeaks }) => fetchLeaks());
  const fetched = await Promise.allSettled([
    identifier,
    forecasts,
    leaks,
    ...Object.values(load).map((each) => each()),
    ...loadFigures(),
  ]);
  if (fetched.every(({ status }) => status === 'fulfilled')) performance.mark(STAGES_FETCHED_MARK);
}
