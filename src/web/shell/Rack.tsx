import { Box, Stack, Typography } from '@mui/material';
import { lazy, Suspense, useEffect, useState } from 'react';
import { useLocation } from 'react-router';
import { waitsInShade } from '../../core/advice/charging';
import { orderRack } from '../../core/advice/dayplan';
import { failedInWords } from '../api/http';
import { type SeenShop, shopNow, useRack, useShop } from '../api/resources';
import { FilterBox } from '../kit/FilterBox';
import { Envelope, type EnvelopesProps, SCROLLS } from './Envelope';

const ManyEnvelopes = lazy(() => import('./ManyEnvelopes'));

const TICK_MS = 20_000;

/** The shop's time, moving on now and then so that promises run out before one's eyes. */
function useNow(shop: SeenShop | undefined): string | null {
  const [nowUtc, setNowUtc] = useState<string | null>(null);
  useEffect(() => {
    if (!shop) return;
    const tick = (): void => setNowUtc(shopNow(shop));
    tick();
    const timer = setInterval(tick, TICK_MS);
    return () => clearInterval(timer);
  }, [shop]);
  return nowUtc;
}

/** From so many jobs on they are looked among by typing, and from more only those that are seen are drawn. */
const FILTER_FROM = 12;
const ALL_DRAWN = 40;

function Envelopes(props: EnvelopesProps) {
  const { jobs, openId, shadedIds, ...rest } = props;
  if (jobs.length > ALL_DRAWN)
    return (
      <Suspense>
        <ManyEnvelopes {...props} />
      </Suspense>
    );
  return (
    <Stack spacing={1} sx={SCROLLS}>
      {jobs.map((job) => (
        <Envelope key={job.id} job={job} open={job.id === openId} inShade={shadedIds.has(job.id)} {...rest} />
      ))}
    </Stack>
  );
}

/** Today's jobs as envelopes, the most pressing first. */
export function Rack({ onPick }: { readonly onPick: () => void }) {
  const { data: jobs, error } = useRack();
  const { data: shop } = useShop();
  const nowUtc = useNow(shop);
  const { pathname } = useLocation();
  const [filter, setFilter] = useState('');
  const wanted = filter.trim().toLowerCase();
  const seen = jobs?.filter(({ ticket, watch, customerName, waitsFor }) =>
    `${ticket} ${watch} ${customerName} ${waitsFor}`.toLowerCase().includes(wanted),
  );
  // Among all of them, not only those looked for.
  const all = jobs?.map(({ lit }) => lit) ?? [];
  const shadedIds = new Set(
    jobs?.flatMap(({ id, lit }) => (lit !== null && waitsInShade(lit, all) ? [id] : [])),
  );
  const openId = /^\/jobs\/([^/]+)/.exec(pathname)?.[1] ?? null;
  return (
    <Stack component="nav" aria-label="Rack" spacing={1} sx={{ p: 1, pt: 1.5, height: '100%', minHeight: 0 }}>
      <Typography variant="h3" component="h2" sx={{ px: 0.5 }}>
        Rack{jobs ? `, ${jobs.length}` : ''}
      </Typography>
      {jobs && jobs.length >= FILTER_FROM && (
        <Box sx={{ px: 0.5 }}>
          <FilterBox label="Search the rack" value={filter} onType={setFilter} />
        </Box>
      )}
      {seen && seen.length > 0 && shop && nowUtc ? (
        <Envelopes
          jobs={orderRack(seen, nowUtc)}
          nowUtc={nowUtc}
          zone={shop.shop.zone}
          openId={openId}
          shadedIds={shadedIds}
          onPick={onPick}
        />
      ) : null}
      {jobs?.length === 0 && (
        <Typography color="text.secondary" sx={{ px: 0.5 }}>
          No watch is waiting. Press n to take in a watch.
        </Typography>
      )}
      {jobs && jobs.length > 0 && seen?.length === 0 && (
        <Typography sx={{ px: 0.5 }}>No match in the rack. Press / to search all jobs.</Typography>
      )}
      {!jobs && error !== undefined && (
        <Typography sx={{ px: 0.5 }}>{failedInWords(error, 'the rack cannot be read.')}</Typography>
      )}
    </Stack>
  );
}
