import { Button, LinearProgress, Paper, Stack, Typography } from '@mui/material';
import { lazy, Suspense, useState } from 'react';
import { useFormContext, useWatch } from 'react-hook-form';
import { LEFT_BY, PHOTO_MARKS } from '../../core/logbook';
import { CalibreFigure } from '../figures/CalibreFigure';
import type { Pane } from '../figures/SideBySide';
import { factFields } from '../kit/factFields';
import { optionsOf } from '../kit/fields';
import { FactCard } from './FactCard';
import { useJob } from './JobContext';
import { MarkedPhoto, MarksInWords, useMarkedPhotos, usePhotosNow } from './photos';

const SideBySide = lazy(() => import('../figures/SideBySide'));
const openPhotoMark = factFields('open.photo-mark');
const DRAWING = 'drawing';

/** A photograph with the mark being set: by mouse or touch, by its arrow keys, or by its figures. */
function Placing({ photo }: { readonly photo: string }) {
  const form = useFormContext();
  const x = useWatch({ name: 'xPercent' }) as number;
  const y = useWatch({ name: 'yPercent' }) as number;
  return (
    <>
      <MarkedPhoto
        hash={photo}
        placing={{ xPercent: x, yPercent: y }}
        onPlace={(xPercent, yPercent) => {
          form.setValue('xPercent', xPercent, { shouldDirty: true });
          form.setValue('yPercent', yPercent, { shouldDirty: true });
        }}
      />
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <openPhotoMark.MeasureField
          name="xPercent"
          quantity="figureOnly"
          unitShown="%"
          helper="from the left"
        />
        <openPhotoMark.MeasureField
          name="yPercent"
          quantity="figureOnly"
          unitShown="%"
          helper="from the top"
        />
      </Stack>
    </>
  );
}

/** How it was found, how it is now and the drawing of its movement, two of them side by side, and marks on the photographs. */
export function Photographs() {
  const { state, book } = useJob();
  const { calibre } = state;
  const found = useMarkedPhotos();
  const now = usePhotosNow();
  const [marking, setMarking] = useState<string | null>(null);
  if (found.length === 0 && now.length === 0) return null;
  const photo =
    (when: string) =>
    ({ hash, name }: { readonly hash: string; readonly name: string }): Pane => ({
      key: `${when} ${hash}`,
      label: `${when}: ${name}`,
      show: <MarkedPhoto hash={hash} />,
    });
  const drawing: Pane | null = calibre && {
    key: DRAWING,
    label: `Drawing of ${calibre.code}`,
    show: (
      <CalibreFigure
        calibre={calibre}
        cellDiameterMm={(code) => book.cell(code)?.diameterMm ?? null}
        legend={false}
      />
    ),
  };
  const panes = [...found.map(photo('As found')), ...now.map(photo('Now')), ...(drawing ? [drawing] : [])];
  const first = panes[0]?.key ?? '';
  const lastNow = now.at(-1);
  const beside = lastNow ? `Now ${lastNow.hash}` : (drawing?.key ?? panes[1]?.key ?? first);
  return (
    <Paper component="section" aria-label="Photographs" sx={{ p: 2 }}>
      <Typography variant="h3" component="h2" sx={{ mb: 1 }}>
        Photographs
      </Typography>
      {marking === null ? (
        <Suspense fallback={<LinearProgress aria-label="Loading the photographs" />}>
          <SideBySide key={beside} title="As found and now" panes={panes} start={[first, beside]} />
          <MarksInWords />
          <Stack direction="row" spacing={1} sx={{ flexWrap: 'wrap', rowGap: 1, mt: 1 }}>
            {[...found, ...now].map(({ hash, name }) => (
              <Button key={hash} variant="outlined" onClick={() => setMarking(hash)}>
                Mark {name}
              </Button>
            ))}
          </Stack>
        </Suspense>
      ) : (
        <>
          <FactCard
            key={marking}
            kind="open.photo-mark"
            title="A mark on this photograph"
            recorded={null}
            defaults={{
              photo: marking,
              xPercent: 50,
              yPercent: 50,
              kind: null,
              by: null,
              note: '',
            }}
            action="Set the mark"
          >
            <Placing photo={marking} />
            <openPhotoMark.ListChoice name="kind" options={optionsOf(PHOTO_MARKS)} />
            <openPhotoMark.Choice name="by" options={optionsOf(LEFT_BY)} />
            <openPhotoMark.TextLine name="note" />
          </FactCard>
          <Button onClick={() => setMarking(null)} sx={{ mt: 1 }}>
            All photographs
          </Button>
        </>
      )}
    </Paper>
  );
}
