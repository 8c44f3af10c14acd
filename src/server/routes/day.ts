import type { Router } from 'express';
import { collection, type DayResource, newDayClose } from '../../contract';
import { mayCloseDay } from '../../core/logbook';
import { dayInWords } from '../../core/craft/time';
import { notKept, parsed } from '../problem';
import type { Store } from '../store/store';
import type { StockDoor } from './stockDoor';

/** The spent bin handed on, and the day closed once no cell lies loose. */
export function dayRoutes(
  router: Router,
  store: Store,
  { known, announce, today, refuseOtherBody }: StockDoor,
): void {
  const { stock } = store;
  const dayNow = (): DayResource => ({
    day: today(),
    loose: store.logbook
      .rack()
      .flatMap(({ id, ticket, watch, looseCells }) =>
        looseCells.map((cell) => ({ jobId: id, ticket, watch, cell })),
      ),
    toBeCounted: stock.lotsInUse().filter(({ toBeCounted }) => toBeCounted),
    spentInBin: stock.spentInBin(),
    closed: stock.isClosed(today()),
  });

  router.post('/collections', (request, response) => {
    const given = parsed(collection, request.body);
    known(given.technicianId);
    const outcome = stock.collect(given);
    refuseOtherBody(outcome);
    if (outcome === 'more than in the bin') {
      throw notKept({
        outcome: 'refused',
        reasons: [`The bin holds ${stock.spentInBin()} spent cells, not ${given.count}.`],
        whatToDo: 'Count the bin again. Missing cells lie loose somewhere. Find them before a child does.',
      });
    }
    announce();
    response.status(outcome === 'collected' ? 201 : 200).json(given);
  });

  router.get('/day', (_request, response) => {
    response.json(dayNow());
  });

  router.post('/day/close', (request, response) => {
    const { day, technicianId } = parsed(newDayClose, request.body);
    known(technicianId);
    const now = dayNow();
    if (day !== now.day)
      throw notKept({
        outcome: 'refused',
        reasons: [`Today is ${dayInWords(now.day)}, not ${dayInWords(day)}.`],
        whatToDo: 'Reload the page, then close today.',
      });
    const may = mayCloseDay(now.loose);
    if (may.verdict !== 'close')
      throw notKept({
        outcome: 'refused',
        reasons: may.reasons,
        whatToDo:
          'Record where each loose cell is. A swallowed cell can kill a child or an animal within hours.',
      });
    if (!now.closed) {
      stock.closeDay(day, `no cell loose, ${now.spentInBin} spent in the bin`, technicianId);
      announce();
    }
    response.status(now.closed ? 200 : 201).json({ ...now, closed: true });
  });
}
