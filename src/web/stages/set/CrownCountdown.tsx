import { Box, Button, Stack, Typography } from '@mui/material';
import { localTime } from '../../../core/craft/time';
import { useShopClock } from '../../api/clock';
import { useJob } from '../../job/JobContext';
import { useKey } from '../../kit/keys/KeysProvider';
import { LampAnswer } from '../../kit/Lamp';
import { MONO } from '../../kit/theme';
import { usePlanner } from './usePlanner';

/** A hand needs so long to bring the minute hand onto its mark. */
const LEAST_AHEAD_MS = 15_000;
const MINUTE_MS = 60_000;
/** *Now* stands for so long. */
const NOW_MS = 3000;

/** The first full minute that leaves time for the hands. */
const nextMinute = (nowUtc: string): string =>
  new Date(Math.ceil((Date.parse(nowUtc) + LEAST_AHEAD_MS) / MINUTE_MS) * MINUTE_MS).toISOString();

function Counting({ atUtc }: { readonly atUtc: string }) {
  const { context } = useJob();
  const { setCrownAt } = usePlanner();
  const nowUtc = useShopClock(100);
  const leftMs = nowUtc === null ? null : Date.parse(atUtc) - Date.parse(nowUtc);
  const clock = localTime(atUtc, context.shop.zone, 'HH:mm');
  const gone = leftMs !== null && leftMs < -NOW_MS;
  return (
    <Box role="group" aria-label="Countdown for the crown" sx={{ mt: 1 }}>
      <Typography>
        Hands on <strong>{clock}</strong>, seconds at zero; crown home at {clock}:00.
      </Typography>
      <Typography
        role="timer"
        sx={{ fontFamily: MONO, fontSize: '2.4rem', fontWeight: 700, lineHeight: 1.2 }}
      >
        {leftMs === null ? '…' : leftMs > 0 ? `${Math.ceil(leftMs / 1000)} s` : gone ? 'Time passed' : 'Now'}
      </Typography>
      <Stack direction="row" spacing={1}>
        <Button
          onClick={() =>
            setCrownAt(
              gone && nowUtc !== null
                ? nextMinute(nowUtc)
                : new Date(Date.parse(atUtc) + MINUTE_MS).toISOString(),
            )
          }
        >
          A minute later
        </Button>
        <Button onClick={() => setCrownAt(null)}>Stop</Button>
      </Stack>
    </Box>
  );
}

/** Counts down to a full minute, so that the crown goes home on the beat; first in the lamp, where the eye is. */
export function CrownCountdown() {
  const { crownAtUtc } = usePlanner();
  return crownAtUtc === null ? null : (
    <LampAnswer question="The crown" tone="open" answer="At the full minute">
      <Counting atUtc={crownAtUtc} />
    </LampAnswer>
  );
}

/** Begins the countdown. */
export function BeginCountdown() {
  const { crownAtUtc, setCrownAt } = usePlanner();
  const nowUtc = useShopClock();
  const begin = (): void => {
    if (nowUtc !== null && crownAtUtc === null) setCrownAt(nextMinute(nowUtc));
  };
  useKey('k', 'Count down to the full minute', begin);
  return (
    <Button
      variant="outlined"
      onClick={begin}
      disabled={nowUtc === null || crownAtUtc !== null}
      sx={{ mt: 1 }}
    >
      Count down to the full minute (k)
    </Button>
  );
}
