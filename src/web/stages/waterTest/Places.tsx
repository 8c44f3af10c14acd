import { Box, Button, Stack, Typography } from '@mui/material';
import { useState } from 'react';
import { useController } from 'react-hook-form';
import { capital } from '../../../core/craft/judgement';
import { LEAK_SIDES, type LeakMark, leakMarkWords, type LeakSide } from '../../../core/logbook';
import { CaseFigure } from '../../figures/CaseFigure';
import { NativeSelect } from '../../kit/NativeSelect';
import { optionsOf } from '../../kit/fields';

const CLOCKS = Array.from({ length: 24 }, (_, i) => (i + 1) / 2);

/** The case from all three sides, with what was seen where. */
export function PlacesFigure({
  places,
  label,
  size = 130,
  onPick,
}: {
  readonly places: readonly LeakMark[];
  readonly label: string;
  readonly size?: number;
  readonly onPick?: (mark: LeakMark) => void;
}) {
  return (
    <Stack direction="row" spacing={1} sx={{ flexWrap: 'wrap' }}>
      {LEAK_SIDES.map((side) => (
        <Box key={side} sx={{ textAlign: 'center' }}>
          <CaseFigure
            view={side}
            size={size}
            marks={places.flatMap((mark) => (mark.side === side ? [{ clock: mark.clock, label }] : []))}
            {...(onPick
              ? {
                  onPick: (clock) => {
                    if (clock !== null) onPick({ side, clock });
                  },
                }
              : {})}
          />
          <Typography variant="body2">{capital(side)}</Typography>
        </Box>
      ))}
    </Stack>
  );
}

const same = (a: LeakMark, b: LeakMark): boolean => a.side === b.side && a.clock === b.clock;

/** Where bubbles rose, or fog stood: pointed at on the drawing, or chosen. */
export function PlacesField({ label }: { readonly label: string }) {
  const { field } = useController({ name: 'places' });
  const places = field.value as readonly LeakMark[];
  const [side, setSide] = useState<LeakSide>('front');
  const [clock, setClock] = useState(3);
  const add = (mark: LeakMark): void => {
    if (!places.some((each) => same(each, mark))) field.onChange([...places, mark]);
  };
  return (
    <Box role="group" aria-label={label}>
      <Typography sx={{ fontWeight: 700 }}>{label}</Typography>
      <PlacesFigure places={places} label="here" onPick={add} />
      <Stack direction="row" spacing={1} sx={{ alignItems: 'end', mt: 0.5, flexWrap: 'wrap' }}>
        <NativeSelect
          label="Seen on the"
          value={side}
          options={optionsOf(LEAK_SIDES)}
          onChange={(next) => setSide(LEAK_SIDES.find((each) => each === next) ?? 'front')}
        />
        <NativeSelect
          label="At"
          value={String(clock)}
          options={CLOCKS.map((each) => ({ value: String(each), label: `${each} o’clock` }))}
          onChange={(next) => setClock(Number(next))}
        />
        <Button onClick={() => add({ side, clock })}>Add the place</Button>
      </Stack>
      {places.map((mark) => (
        <Stack key={`${mark.side} ${mark.clock}`} direction="row" sx={{ alignItems: 'center' }}>
          <Typography>{capital(leakMarkWords(mark))}</Typography>
          <Button
            aria-label={`Take out ${leakMarkWords(mark)}`}
            onClick={() => field.onChange(places.filter((each) => !same(each, mark)))}
          >
            Take out
          </Button>
        </Stack>
      ))}
    </Box>
  );
}
