import { Alert, Button, Paper, Stack } from '@mui/material';
import { useState } from 'react';
import { FormProvider } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { mutate } from 'swr';
import { RECORDS } from '../../../contract';
import type { Book } from '../../../core/craft/book';
import { useBench } from '../../api/bench';
import { failedInWords, postJson, Refused } from '../../api/http';
import { Columns } from '../../kit/Columns';
import { DescribedField } from '../../kit/DescribedField';
import { useChosenForm, submitHandler } from '../../kit/form';
import type { RecordView } from './records';

interface Props {
  readonly view: RecordView;
  readonly book: Book;
  /** The record as it stands, or null for a new one. */
  readonly body: object | null;
  readonly basedOn: number | null;
  readonly onDone: () => void;
}

/** One record of the book, entered or corrected; what the server finds wrong is shown at its field. */
export function RecordForm({ view, book, body, basedOn, onDone }: Props) {
  const { technicianId } = useBench();
  const navigate = useNavigate();
  const [failed, setFailed] = useState<string | null>(null);
  const form = useChosenForm(RECORDS[view.kind].schema, {
    defaultValues: body ?? view.blank,
  });
  const write = submitHandler(form, async (values) => {
    setFailed(null);
    const id = view.idOf(values);
    try {
      await postJson('/api/catalogue/records', {
        kind: view.kind,
        id: basedOn === null || body === null ? id : view.idOf(body),
        body: values,
        basedOn,
        technicianId,
      });
      await mutate('/api/shop');
      await mutate((key) => typeof key === 'string' && key.startsWith('/api/catalogue/'));
      onDone();
      await navigate(`${view.base}/${view.segment}/${encodeURIComponent(id)}`);
    } catch (error) {
      if (!(error instanceof Refused)) {
        setFailed(failedInWords(error, 'nothing was saved.'));
        return;
      }
      for (const { path, message } of error.problem.fields ?? []) form.setError(path, { message });
      setFailed(`${error.message} ${error.problem.whatToDo ?? ''}`);
    }
  });
  return (
    <FormProvider {...form}>
      <Paper sx={{ p: 2 }}>
        <Stack
          component="form"
          spacing={1.5}
          noValidate
          aria-label={body === null ? `New ${view.one}` : `Edit ${view.one}`}
          onSubmit={(event) => void write(event)}
        >
          <Columns>
            {Object.entries(view.fields).map(([name, spec]) => (
              <DescribedField key={name} spec={spec} name={name} makers={book.makers} />
            ))}
          </Columns>
          {failed && <Alert severity="error">{failed}</Alert>}
          <Stack direction="row" spacing={1}>
            <Button type="submit" variant="contained" disabled={technicianId === null}>
              Save to book
            </Button>
            <Button onClick={onDone}>Cancel</Button>
          </Stack>
        </Stack>
      </Paper>
    </FormProvider>
  );
}
