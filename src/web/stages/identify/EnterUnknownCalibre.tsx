import {
  Alert,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogContentText,
  DialogTitle,
  Stack,
} from '@mui/material';
import { useState } from 'react';
import { FormProvider } from 'react-hook-form';
import { mutate } from 'swr';
import type { z } from 'zod';
import { unknownCalibreForm } from '../../../contract';
import { unknownCalibre } from '../../../core/craft/identify';
import type { Calibre } from '../../../core/craft/movements';
import { failedInWords, postJson, Refused } from '../../api/http';
import { fieldsOf } from '../../kit/fields';
import { useCheckedForm, submitHandler } from '../../kit/form';
import { useJob } from '../../job/JobContext';
import { useRecordMovement } from './recordMovement';
import { useAnswer } from './useIdentification';

type Values = z.infer<typeof unknownCalibreForm>;

const calibreFields = fieldsOf<Values>();

/** A movement that is not in the book goes into it with what is known, as the shop's own. */
export function EnterUnknownCalibre({ sister = null }: { readonly sister?: Calibre | null }) {
  const [asking, setAsking] = useState(false);
  const { technician } = useJob();
  return (
    <>
      <Button variant="outlined" onClick={() => setAsking(true)} disabled={technician === null}>
        {sister ? `Add, based on ${sister.code}` : 'Add to the book'}
      </Button>
      {asking && <UnknownCalibreDialog sister={sister} onClose={() => setAsking(false)} />}
    </>
  );
}

/** What a sister takes, in words; empty where it runs from an accumulator or the book does not say. */
function cellOf({ charge, wells }: Calibre): string {
  const codes = charge ? [] : wells.map(({ cellCode }) => cellCode).filter(Boolean);
  return codes.length === 0 ? '' : `, a ${codes.join(' and a ')},`;
}

function KnownFields() {
  const { book } = useJob();
  return (
    <>
      <calibreFields.TextLine name="code" label="Code, as marked" mono autoFocus />
      <calibreFields.ListChoice
        name="makerId"
        label="Maker"
        options={[
          { value: '', label: 'choose the maker' },
          ...book.makers.map(({ id, name }) => ({ value: id, label: name })),
        ]}
      />
      <calibreFields.TextLine name="cellCode" label="Cell, blank if not known" mono />
      <calibreFields.MeasureField name="widthMm" label="Width" quantity="lengthMm" optional />
      <calibreFields.MeasureField name="currentUA" label="Current measured" quantity="currentUA" optional />
    </>
  );
}

function UnknownCalibreDialog({
  sister,
  onClose,
}: {
  readonly sister: Calibre | null;
  readonly onClose: () => void;
}) {
  const { book, state, technician } = useJob();
  const { counting } = useAnswer();
  const recordMovement = useRecordMovement();
  const [failed, setFailed] = useState<string | null>(null);
  const known = unknownCalibre(counting, book, sister);
  const form = useCheckedForm<Values>(unknownCalibreForm, {
    defaultValues: {
      code: state.facts.movement?.payload.code ?? known.code,
      makerId: known.makerId,
      cellCode: known.cellCode,
      widthMm: known.widthMm,
      currentUA: state.facts.readings.get('currentUA')?.payload.value ?? null,
    },
  });
  const write = submitHandler(form, async (values) => {
    const calibre = known.build(values);
    setFailed(null);
    try {
      await postJson('/api/catalogue/records', {
        kind: 'calibre',
        id: calibre.id,
        body: calibre,
        basedOn: null,
        technicianId: technician?.id,
      });
      recordMovement({ calibreId: calibre.id, revision: null, code: calibre.code, by: 'hand' });
      await mutate('/api/shop');
      onClose();
    } catch (error) {
      if (error instanceof Refused) {
        const [field] = error.problem.fields ?? [];
        setFailed(`${field?.message ?? error.message} ${error.problem.whatToDo ?? ''}`.trim());
      } else
        setFailed(failedInWords(error, 'nothing was saved. Name the movement by hand and add it later.'));
    }
  });
  return (
    <Dialog open onClose={onClose} aria-labelledby="unknown-calibre-title" maxWidth="sm" fullWidth>
      <FormProvider {...form}>
        <form onSubmit={(event) => void write(event)} noValidate>
          <DialogTitle id="unknown-calibre-title">Add this movement to the book</DialogTitle>
          <DialogContent>
            <DialogContentText>
              {sister
                ? `Fields that were not seen are copied from ${sister.code}, except its cell${cellOf(sister)} and its measured values. `
                : 'Enter what is known. '}
              It is marked as the shop’s own until it is complete. Until then, readings are compared with its
              family or with general figures.
            </DialogContentText>
            <Stack spacing={1.5} sx={{ mt: 2 }}>
              <KnownFields />
              {failed && <Alert severity="error">{failed}</Alert>}
            </Stack>
          </DialogContent>
          <DialogActions>
            <Button onClick={onClose}>Cancel</Button>
            <Button type="submit" variant="contained">
              Save to book
            </Button>
          </DialogActions>
        </form>
      </FormProvider>
    </Dialog>
  );
}
