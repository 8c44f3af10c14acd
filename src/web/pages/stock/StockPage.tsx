import { Button, Stack, Tab, Tabs, Typography } from '@mui/material';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { StockResource } from '../../../contract';
import { LOOSE_CELL_CAUTION } from '../../../core/logbook';
import { isPastDate } from '../../../core/craft/stock';
import { dayInWords, localDay } from '../../../core/craft/time';
import { useBench } from '../../api/bench';
import { type SeenShop, useRack, useShop, useStock, shopNow } from '../../api/resources';
import { Loading } from '../../kit/Loading';
import { Caution, LampAnswer } from '../../kit/Lamp';
import { StageLayout } from '../../kit/StageLayout';
import { NoSuchPage } from '../NoSuchPage';
import { Day } from './Day';
import { CellRead, GoodsIn, type Typed } from './GoodsIn';
import { Lots } from './Lots';
import { Orders } from './Orders';
import { Rings } from './Rings';
import { SpentBin } from './SpentBin';
import { Trace } from './Trace';

const PARTS = {
  '': 'Lots',
  orders: 'Orders and deliveries',
  trace: 'Trace a lot',
  day: 'Close the day',
} as const;
type Part = keyof typeof PARTS;

function LooseCells() {
  const { data: jobs = [] } = useRack();
  const loose = jobs.filter((job) => job.looseCells.length > 0);
  return (
    <>
      <LampAnswer
        question="Loose cells"
        tone={loose.length === 0 ? 'good' : 'no'}
        answer={loose.length === 0 ? 'None' : `${loose.flatMap((job) => job.looseCells).length}`}
        reasons={
          loose.length === 0
            ? ['Every cell taken out is back in the watch, taped and binned, or with its owner.']
            : []
        }
      />
      {loose.map((job) => (
        <Typography key={job.id}>
          <Link to={`/jobs/${job.id}/cell`}>{job.ticket}</Link>:{' '}
          {job.looseCells.map(({ marking }) => marking).join(', ')}, out of the watch and not accounted for.
        </Typography>
      ))}
      {loose.length > 0 && <Caution grave>{LOOSE_CELL_CAUTION}</Caution>}
    </>
  );
}

/** What wants a hand in the stock, beside whichever part is open. */
function StockLamp({ shop, stock }: { readonly shop: SeenShop; readonly stock: StockResource }) {
  const today = localDay(shopNow(shop), shop.shop.zone);
  const toCount = stock.lots.filter((lot) => lot.toBeCounted);
  const past = stock.lots.filter((lot) => lot.balance > 0 && isPastDate(lot, today));
  const aside = stock.lots.filter((lot) => lot.quarantined !== null);
  const lotsWords = (count: number): string => `${count} lot${count === 1 ? '' : 's'}`;
  return (
    <>
      <LampAnswer
        question="Lots to count"
        tone={toCount.length === 0 ? 'good' : 'care'}
        answer={toCount.length === 0 ? 'Nothing' : lotsWords(toCount.length)}
        reasons={toCount.map(
          (lot) => `Lot ${lot.lotCode} of ${lot.code}: ${lot.unbooked} more taken than the ledger shows.`,
        )}
      />
      {past.length > 0 && (
        <LampAnswer
          question="Past best-before date"
          tone="no"
          answer={lotsWords(past.length)}
          reasons={past.map((lot) => `Lot ${lot.lotCode} of ${lot.code}: do not fit.`)}
        />
      )}
      {aside.length > 0 && (
        <LampAnswer
          question="In quarantine"
          tone="no"
          answer={lotsWords(aside.length)}
          reasons={aside.map((lot) => `Lot ${lot.lotCode} of ${lot.code}: ${lot.quarantined ?? ''}`)}
        />
      )}
      <LampAnswer
        question="Last day closed"
        tone={stock.lastClosed === null ? 'open' : 'good'}
        answer={stock.lastClosed === null ? 'None yet' : dayInWords(stock.lastClosed)}
      />
    </>
  );
}

function StockPage({
  shop,
  stock,
  part,
}: {
  readonly shop: SeenShop;
  readonly stock: StockResource;
  readonly part: Part;
}) {
  const { technicianId } = useBench();
  const [typed, setTyped] = useState<Typed>({ item: 'cell', code: '' });
  return (
    <StageLayout
      mat={
        <>
          <Stack direction="row" sx={{ alignItems: 'baseline', justifyContent: 'space-between' }}>
            <Typography variant="h1">Stock</Typography>
            <Button href="/api/lists/stock.csv">As CSV</Button>
          </Stack>
          <Tabs value={part} aria-label="Parts of the stock" variant="scrollable">
            {(Object.keys(PARTS) as Part[]).map((each) => (
              <Tab
                key={each}
                value={each}
                label={PARTS[each]}
                component={Link}
                to={each === '' ? '/stock' : `/stock/${each}`}
              />
            ))}
          </Tabs>
          {part === '' && <Lots stock={stock} shop={shop} technicianId={technicianId} />}
          {part === '' && <Rings stock={stock} shop={shop} />}
          {technicianId === null ? (
            <Typography>Choose who is at the bench to book goods, orders and the day.</Typography>
          ) : (
            <>
              {part === '' && (
                <>
                  <GoodsIn
                    key={`goods-${technicianId}`}
                    shop={shop}
                    technicianId={technicianId}
                    onTyped={setTyped}
                  />
                  <SpentBin
                    key={`bin-${technicianId}`}
                    stock={stock}
                    shop={shop}
                    technicianId={technicianId}
                  />
                </>
              )}
              {part === 'orders' && <Orders stock={stock} shop={shop} technicianId={technicianId} />}
              {part === 'trace' && <Trace stock={stock} shop={shop} technicianId={technicianId} />}
              {part === 'day' && <Day shop={shop} technicianId={technicianId} />}
            </>
          )}
        </>
      }
      lamp={
        <>
          {part === '' && <CellRead shop={shop} stock={stock} typed={typed} />}
          {part !== 'day' && <LooseCells />}
          <StockLamp shop={shop} stock={stock} />
        </>
      }
    />
  );
}

/** What the house holds by lot, orders and deliveries, a lot traced, and the close of the day. */
export default function Stock() {
  const { part = '' } = useParams();
  const { data: shop } = useShop();
  const { data: stock } = useStock();
  if (!(part in PARTS)) return <NoSuchPage what="page" />;
  return shop && stock ? (
    <StockPage shop={shop} stock={stock} part={part as Part} />
  ) : (
    <Loading what="the stock" />
  );
}
