import { Box, Button, Paper, Stack, Typography } from '@mui/material';
import { useState } from 'react';
import { useFormContext, useWatch } from 'react-hook-form';
import { AS_FOUND, LEFT_BY, PHOTO_MARKS, type Payloads } from '../../../core/logbook';
import { optionsOf, fieldsOf } from '../../kit/fields';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { MarkedPhoto, useMarkedPhotos } from '../../job/photos';

const openPhotoMark = fieldsOf<Payloads['open.photo-mark']>();
const openAsFound = fieldsOf<Payloads['open.as-found']>();

/** A photograph with the mark being set: by touch, or by its figures from the keyboard. */
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
          label="Across"
          quantity="figureOnly"
          unitShown="%"
          helper="from the left"
        />
        <openPhotoMark.MeasureField
          name="yPercent"
          label="Down"
          quantity="figureOnly"
          unitShown="%"
          helper="from the top"
        />
      </Stack>
    </>
  );
}

/** Photographs of this job, with what is to be seen on them. */
export function Photographs() {
  const photos = useMarkedPhotos();
  const [marking, setMarking] = useState<string | null>(null);
  if (photos.length === 0) return null;
  return (
    <Paper component="section" aria-label="Marked photographs" sx={{ p: 2 }}>
      <Typography variant="h3" component="h2">
        Marked photographs
      </Typography>
      {marking === null ? (
        <Box
          sx={{
            display: 'grid',
            gap: 1.5,
            mt: 1,
            gridTemplateColumns: { xs: '1fr', sm: photos.length > 1 ? '1fr 1fr' : '1fr' },
          }}
        >
          {photos.map(({ hash, name }) => (
            <Stack key={hash} spacing={0.5}>
              <MarkedPhoto hash={hash} listed />
              <Button
                variant="outlined"
                sx={{ alignSelf: 'flex-start' }}
                onClick={() => setMarking(hash)}
                aria-label={`Mark it: ${name}`}
              >
                Mark it
              </Button>
            </Stack>
          ))}
        </Box>
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
            <openPhotoMark.ListChoice name="kind" label="What it shows" options={optionsOf(PHOTO_MARKS)} />
            <openPhotoMark.Choice name="by" label="Left by" options={optionsOf(LEFT_BY)} />
            <openPhotoMark.TextLine name="note" label="Note" />
          </FactCard>
          <Button onClick={() => setMarking(null)} sx={{ mt: 1 }}>
            All photographs
          </Button>
        </>
      )}
    </Paper>
  );
}

/** What an earlier hand left, before anything inside is touched: in words and in photographs. */
export function AsFound() {
  const { state } = useJob();
  return (
    <FactCard
      kind="open.as-found"
      files
      title="As found, before anything is touched"
      recorded={state.facts.asFound}
      defaults={{ found: [], note: '' }}
    >
      <openAsFound.Several name="found" label="Left by earlier hands" options={optionsOf(AS_FOUND)} />
      <openAsFound.TextLine name="note" label="Note" />
    </FactCard>
  );
}
