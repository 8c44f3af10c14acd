import { Box, Button, Checkbox, FormControlLabel, Paper, Stack, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { useController, useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { type AnyField, blankOf } from '../../contract';
import type { Book } from '../../core/craft/book';
import { useShop } from '../api/resources';
import { Columns } from './Columns';
import { Choice, ListChoice, Several, Tick } from './choiceFields';
import { MeasureField, MoneyField, NumbersField, optionsOf, TextLine } from './fields';
import { NativeSelect } from './NativeSelect';

/** The makers that a record can belong to. */
type Makers = Book['makers'];
const NO_MAKERS: Makers = [];

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
  makers,
}: {
  readonly spec: AnyField & { readonly as: 'parts' };
  readonly name: string;
  readonly makers: Makers;
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
              <DescribedField key={own} spec={inner} name={`${name}.${index}.${own}`} makers={makers} />
            ))}
          </Columns>
          <Button onClick={() => remove(index)} sx={{ mt: 1 }}>
            Remove {spec.one} {index + 1}
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
  makers,
}: {
  readonly spec: AnyField & { readonly as: 'part or nothing' };
  readonly name: string;
  readonly makers: Makers;
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
            <DescribedField key={own} spec={inner} name={`${name}.${own}`} makers={makers} />
          ))}
        </Columns>
      )}
    </Stack>
  );
}

/** A field as it is described: its label, its figures and its options stand there once. */
export function DescribedField({
  spec,
  name,
  makers = NO_MAKERS,
}: {
  readonly spec: AnyField;
  readonly name: string;
  readonly makers?: Makers;
}) {
  const { label } = spec;
  const helped = spec.helper === undefined ? {} : { helper: spec.helper };
  const options = (values: readonly string[]) => values.map((value) => ({ value, label: value }));
  switch (spec.as) {
    case 'text':
      return <TextLine name={name} label={label} {...helped} />;
    case 'mono':
      return <TextLine name={name} label={label} mono {...helped} />;
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
          {...helped}
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
            ...makers.map((maker) => ({ value: maker.id, label: maker.name })),
          ]}
        />
      );
    case 'parts':
      return <Parts spec={spec} name={name} makers={makers} />;
    case 'part or nothing':
      return <PartOrNothing spec={spec} name={name} makers={makers} />;
  }
}
