import {
  Alert,
  Box,
  Button,
  Checkbox,
  FormControlLabel,
  Paper,
  Stack,
  TextField,
  Typography,
} from '@mui/material';
import { useState } from 'react';
import { FormProvider, useController, useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { mutate } from 'swr';
import { type AnyField, blankOf, RECORDS } from '../../../contract';
import type { Book } from '../../../core/craft/book';
import { useBench } from '../../api/bench';
import { failedInWords, postJson, Refused } from '../../api/http';
import { useShop } from '../../api/resources';
import { Columns } from '../../kit/Columns';
import { useChosenForm, whenSent } from '../../kit/form';
import { NativeSelect } from '../../kit/NativeSelect';
import {
  Choice,
  ListChoice,
  MeasureField,
  MoneyField,
  NumbersField,
  optionsOf,
  Several,
  TextLine,
  Tick,
} from '../../kit/fields';
import type { RecordView } from './records';

/** A list of texts, one a line. */
function LinesField({ name, label }: { readonly name: string; readonly label: string }) {
  const { field, fieldState } = useController({ name });
  const lines = (field.value as readonly string[] | undefined) ?? [];
  const [typed, setTyped] = useState(lines.join('\n'));
  return (
    <TextField
      label={label}
      multiline
      minRows={2}
      fullWidth
      value={typed}
      error={fieldState.error !== undefined}
      helperText={fieldState.error?.message}
      onChange={(event) => {
        setTyped(event.target.value);
        field.onChange(
          event.target.value
            .split('\n')
            .map((line) => line.trim())
            .filter((line) => line !== ''),
        );
      }}
    />
  );
}

/** One of a few figures. */
function FigureChoice({
  name,
  label,
  options,
}: {
  readonly name: string;
  readonly label: string;
  readonly options: readonly number[];
}) {
  const { field } = useController({ name });
  return (
    <NativeSelect
      label={label}
      value={String(field.value)}
      options={options.map((each) => ({ value: String(each), label: String(each) }))}
      onChange={(value) => field.onChange(Number(value))}
    />
  );
}

/** A sum in the shop's currency. */
function Money({ name, label }: { readonly name: string; readonly label: string }) {
  const { data: shop } = useShop();
  return <MoneyField name={name} label={label} currency={shop?.policy.currency ?? ''} />;
}

function Parts({
  spec,
  name,
  book,
}: {
  readonly spec: AnyField & { readonly as: 'parts' };
  readonly name: string;
  readonly book: Book;
}) {
  const { fields, append, remove } = useFieldArray({ name });
  return (
    <Stack spacing={1.5} role="group" aria-label={spec.label} sx={{ gridColumn: '1 / -1' }}>
      <Typography sx={{ fontWeight: 700 }}>{spec.label}</Typography>
      {fields.map((field, index) => (
        <Paper
          key={field.id}
          variant="outlined"
          sx={{ p: 1.5 }}
          role="group"
          aria-label={`${spec.one} ${index + 1}`}
        >
          <Columns>
            {Object.entries(spec.fields).map(([own, inner]) => (
              <Field key={own} spec={inner} name={`${name}.${index}.${own}`} book={book} />
            ))}
          </Columns>
          <Button onClick={() => remove(index)} sx={{ mt: 1 }}>
            Leave out {spec.one} {index + 1}
          </Button>
        </Paper>
      ))}
      <Button
        onClick={() => append(blankOf(spec.fields))}
        variant="outlined"
        sx={{ alignSelf: 'flex-start' }}
      >
        Another {spec.one}
      </Button>
    </Stack>
  );
}

function PartOrNothing({
  spec,
  name,
  book,
}: {
  readonly spec: AnyField & { readonly as: 'part or nothing' };
  readonly name: string;
  readonly book: Book;
}) {
  const form = useFormContext();
  const value: unknown = useWatch({ name });
  return (
    <Stack spacing={1} role="group" aria-label={spec.label} sx={{ gridColumn: '1 / -1' }}>
      <FormControlLabel
        label={spec.label}
        control={
          <Checkbox
            checked={value !== null && value !== undefined}
            onChange={(_, on) => form.setValue(name, on ? blankOf(spec.fields) : null, { shouldDirty: true })}
          />
        }
      />
      {value !== null && value !== undefined && (
        <Columns>
          {Object.entries(spec.fields).map(([own, inner]) => (
            <Field key={own} spec={inner} name={`${name}.${own}`} book={book} />
          ))}
        </Columns>
      )}
    </Stack>
  );
}

function Field({
  spec,
  name,
  book,
}: {
  readonly spec: AnyField;
  readonly name: string;
  readonly book: Book;
}) {
  const { label } = spec;
  const options = (values: readonly string[]) => values.map((value) => ({ value, label: value }));
  switch (spec.as) {
    case 'text':
      return <TextLine name={name} label={label} />;
    case 'mono':
      return <TextLine name={name} label={label} mono />;
    case 'text or nothing':
      return <TextLine name={name} label={label} blankIsNull />;
    case 'tick':
      return <Tick name={name} label={label} />;
    case 'lines':
      return <LinesField name={name} label={label} />;
    case 'numbers':
      return <NumbersField name={name} label={label} />;
    case 'number':
      return (
        <MeasureField
          name={name}
          label={label}
          quantity={spec.quantity}
          optional={spec.optional}
          {...(spec.unit === undefined ? {} : { unitShown: spec.unit })}
        />
      );
    case 'choice':
      return spec.options.length > 3 ? (
        <ListChoice name={name} label={label} options={options(spec.options)} />
      ) : (
        <Choice name={name} label={label} options={optionsOf(spec.options)} />
      );
    case 'choice or nothing':
      return (
        <ListChoice
          name={name}
          label={label}
          options={[{ value: '', label: 'not known' }, ...options(spec.options)]}
        />
      );
    case 'figure choice':
      return <FigureChoice name={name} label={label} options={spec.options} />;
    case 'money':
      return <Money name={name} label={label} />;
    case 'several':
      return (
        <Box sx={{ gridColumn: '1 / -1' }}>
          <Several name={name} label={label} options={options(spec.options)} />
        </Box>
      );
    case 'maker':
      return (
        <ListChoice
          name={name}
          label={label}
          options={[
            { value: '', label: 'choose the maker' },
            ...book.makers.map((maker) => ({ value: maker.id, label: maker.name })),
          ]}
        />
      );
    case 'parts':
      return <Parts spec={spec} name={name} book={book} />;
    case 'part or nothing':
      return <PartOrNothing spec={spec} name={name} book={book} />;
  }
}

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
  const write = whenSent(form, async (values) => {
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
        setFailed(failedInWords(error, 'nothing was written.'));
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
          aria-label={body === null ? `New ${view.one}` : `Correct this ${view.one}`}
          onSubmit={(event) => void write(event)}
        >
          <Columns>
            {Object.entries(view.fields).map(([name, spec]) => (
              <Field key={name} spec={spec} name={name} book={book} />
            ))}
          </Columns>
          {failed && <Alert severity="error">{failed}</Alert>}
          <Stack direction="row" spacing={1}>
            <Button type="submit" variant="contained" disabled={technicianId === null}>
              Write it into the book
            </Button>
            <Button onClick={onDone}>Leave it</Button>
          </Stack>
        </Stack>
      </Paper>
    </FormProvider>
  );
}
