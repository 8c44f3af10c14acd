import { Box } from '@mui/material';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef } from 'react';
import { Envelope, type EnvelopeProps, type EnvelopesProps, SCROLLS } from './Envelope';

const ENVELOPE_PX = 128;
const GAP_PX = 8;
const OVERSCAN = 6;

/** A rack longer than anybody sees at once. */
export default function ManyEnvelopes({ jobs, openId, shadedIds, ...rest }: EnvelopesProps) {
  // What the window answers changes without its identity: nothing of it may be kept from one drawing to the next.
  'use no memo';
  const place = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- said above
  const virtual = useVirtualizer({
    count: jobs.length,
    getScrollElement: () => place.current,
    estimateSize: () => ENVELOPE_PX,
    gap: GAP_PX,
    overscan: OVERSCAN,
  });
  const openAt = jobs.findIndex(({ id }) => id === openId);
  useEffect(() => {
    if (openAt >= 0) virtual.scrollToIndex(openAt, { align: 'auto' });
  }, [openAt, virtual]);
  return (
    <Box ref={place} sx={SCROLLS}>
      <Box sx={{ position: 'relative', height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const job = jobs[index] as EnvelopeProps['job'];
          return (
            <Box
              key={job.id}
              ref={virtual.measureElement}
              data-index={index}
              sx={{ position: 'absolute', left: 0, right: 0, top: 0 }}
              style={{ transform: `translateY(${start}px)` }}
            >
              <Envelope job={job} open={job.id === openId} inShade={shadedIds.has(job.id)} {...rest} />
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
