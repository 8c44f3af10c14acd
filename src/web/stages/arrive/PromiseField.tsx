import { Button, Stack, Typography } from '@mui/material';
import { AdapterDayjs } from '@mui/x-date-pickers/AdapterDayjs';
import { DateTimePicker } from '@mui/x-date-pickers/DateTimePicker';
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider';
import dayjs from 'dayjs';
import timezone from 'dayjs/plugin/timezone.js';
import utc from 'dayjs/plugin/utc.js';
import { useController } from 'react-hook-form';
import { openAt, withinHours } from '../../../core/advice/dayplan';
import type { Policy } from '../../../core/craft/policy';
import { addMinutes } from '../../../core/craft/time';
import type { Payloads } from '../../../core/logbook';

dayjs.extend(utc);
dayjs.extend(timezone);

const SOON = [10, 30, 60, 180] as const;

interface Props {
  readonly name: `${'' | 'promise.'}${keyof Payloads['arrive.promise']}`;
  readonly zone: string;
  readonly nowUtc: string;
  readonly hours: Policy['hours'];
}

/** The promised time, in the shop's zone: a few usual waits, or a day and hour. */
export function PromiseField({ name, zone, nowUtc, hours }: Props) {
  const { field, fieldState } = useController({ name });
  const promisedAt = field.value as string;
  const opening = promisedAt === '' ? null : openAt(promisedAt, hours, zone);
  return (
    <LocalizationProvider dateAdapter={AdapterDayjs}>
      <Stack
        direction={{ xs: 'column', sm: 'row' }}
        spacing={1}
        sx={{ alignItems: 'center', flexWrap: 'wrap', rowGap: 1 }}
      >
        <DateTimePicker
          label="Promised for"
          ampm={false}
          timezone={zone}
          format="DD MMM YYYY HH:mm"
          value={dayjs.utc(field.value as string).tz(zone)}
          onChange={(value) => field.onChange(value?.isValid() ? value.toDate().toISOString() : '')}
          slotProps={{
            textField: {
              size: 'small',
              error: fieldState.error !== undefined,
              helperText: fieldState.error?.message,
            },
          }}
        />
        {SOON.map((minutes) => (
          <Button
            key={minutes}
            variant="outlined"
            onClick={() =>
              field.onChange(withinHours(addMinutes(withinHours(nowUtc, hours, zone), minutes), hours, zone))
            }
          >
            in {minutes < 60 ? `${minutes} min` : `${minutes / 60} h`}
          </Button>
        ))}
      </Stack>
      {opening?.verdict === 'closed' && <Typography>▲ {opening.reasons.join(' ')}</Typography>}
    </LocalizationProvider>
  );
}
