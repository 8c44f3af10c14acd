import { type ComponentType, lazy, type LazyExoticComponent } from 'react';
import type { StageId } from '../../core/policy';

/** Each stage is its own bundle, loaded when it is opened. */
export const stages: Readonly<Record<StageId, LazyExoticComponent<ComponentType>>> = {
  arrive: lazy(() => import('./arrive/ArriveStage')),
  open: lazy(() => import('./open/OpenStage')),
  identify: lazy(() => import('./identify/IdentifyStage')),
  check: lazy(() => import('./check/CheckStage')),
  cell: lazy(() => import('./cell/CellStage')),
  seal: lazy(() => import('./seal/SealStage')),
  test: lazy(() => import('./test/TestStage')),
  set: lazy(() => import('./set/SetStage')),
  handback: lazy(() => import('./handback/HandbackStage')),
};
