import { Router } from 'express';
import type { Store } from '../store/store';
import { dayRoutes } from './day';
import { readLots, writeLots } from './lots';
import { deliveryRoutes, orderRoutes } from './orders';
import { stockDoor } from './stockDoor';

/** The stock by lot, orders and deliveries, the bin, and the close of the day. */
export function stockRoutes(store: Store): Router {
  const router = Router();
  const door = stockDoor(store);
  readLots(router, store);
  writeLots(router, store, door);
  orderRoutes(router, store, door);
  deliveryRoutes(router, store, door);
  dayRoutes(router, store, door);
  return router;
}
