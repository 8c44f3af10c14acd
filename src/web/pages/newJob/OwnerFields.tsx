import {
  Alert,
  Autocomplete,
  Button,
  FormControl,
  FormControlLabel,
  FormLabel,
  Radio,
  RadioGroup,
  Stack,
  TextField,
} from '@mui/material';
import { useEffect, useId, useState } from 'react';
import { useController, useFormContext, useWatch, useFormState } from 'react-hook-form';
import { v7 } from 'uuid';
import type { Customer, FindResult, KnownWatch } from '../../../contract';
import { sameDetails, watchNameWithSerial } from '../../../core/logbook';
import { useResource } from '../../api/resource';
import { useCustomer } from '../../api/resources';
import { type Intake, intakeFields } from './intake';

const QUERY_PAUSE_MS = 150;

/** The owner: found again by name or phone, or new. */
export function CustomerFields({ onKnown }: { readonly onKnown: (customer: Customer) => void }) {
  const { field, fieldState } = useController<Intake, 'customer'>({ name: 'customer' });
  const { errors } = useFormState<Intake>();
  const { value } = field;
  const [query, setQuery] = useState('');
  useEffect(() => {
    const timer = setTimeout(() => setQuery(value.name.trim()), QUERY_PAUSE_MS);
    return () => clearTimeout(timer);
  }, [value.name]);
  const { data } = useResource<FindResult>(
    query.length < 2 ? null : `/api/find?q=${encodeURIComponent(query)}`,
    { kept: false, keepPreviousData: true },
  );
  const known = (query.length < 2 ? [] : (data?.customers ?? [])).filter(
    (each) => each.id !== value.id || each.name !== value.name,
  );
  const nameError = errors.customer?.name?.message ?? fieldState.error?.message;
  return (
    <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
      <Autocomplete
        freeSolo
        fullWidth
        options={known}
        filterOptions={(options) => options}
        getOptionLabel={(option) => (typeof option === 'string' ? option : option.name)}
        getOptionKey={(option) => (typeof option === 'string' ? option : option.id)}
        inputValue={value.name}
        onInputChange={(_, name, reason) => {
          if (reason === 'input') field.onChange({ ...value, name });
        }}
        onChange={(_, picked) => {
          if (picked !== null && typeof picked !== 'string') {
            field.onChange(picked);
            onKnown(picked);
          }
        }}
        renderOption={({ key, ...props }, option) => (
          <li key={key} {...props}>
            {option.name}, {option.phone || 'no phone'}
          </li>
        )}
        renderInput={(params) => (
          <TextField
            {...params}
            label="Owner"
            autoFocus
            error={nameError !== undefined}
            helperText={nameError ?? 'name of a known or new owner'}
          />
        )}
      />
      <intakeFields.TextLine name="customer.phone" label="Phone" />
    </Stack>
  );
}

/** What is typed over an owner found again puts that owner right, on every job; or it is somebody else. */
export function PutsOwnerRight({
  known,
  onAnother,
}: {
  readonly known: Customer;
  readonly onAnother: () => void;
}) {
  const form = useFormContext<Intake>();
  const typed = useWatch<Intake, 'customer'>({ name: 'customer' });
  if (sameDetails(known, typed)) return null;
  return (
    <Alert
      severity="info"
      action={
        <Button
          color="inherit"
          onClick={() => {
            form.setValue('customer', { ...form.getValues('customer'), id: v7() });
            onAnother();
          }}
        >
          This is another person
        </Button>
      }
    >
      Puts {[known.name, known.phone].filter(Boolean).join(', ')} right, on every job.
    </Alert>
  );
}

/** Which of the owner's watches it is: one that was here before, described as it was then, or another. */
export function WhichWatch({
  customerId,
  watchId,
  onPick,
}: {
  readonly customerId: string;
  readonly watchId: string | null;
  readonly onPick: (watch: KnownWatch | null) => void;
}) {
  const { data } = useCustomer(customerId);
  const form = useFormContext<Intake>();
  const labelId = useId();
  if (!data || data.watches.length === 0) return null;
  return (
    <FormControl>
      <FormLabel id={labelId}>Which watch?</FormLabel>
      <RadioGroup
        aria-labelledby={labelId}
        value={watchId ?? ''}
        onChange={(_, picked) => {
          const known = data.watches.find((each) => each.watchId === picked);
          onPick(known ?? null);
          if (known) form.setValue('watch', known.watch);
        }}
      >
        <FormControlLabel value="" control={<Radio />} label="A watch that is new here" />
        {data.watches.map(({ watchId: id, ticket, watch }) => (
          <FormControlLabel
            key={id}
            value={id}
            control={<Radio />}
            label={`${watchNameWithSerial(watch)}, last ${ticket}`}
          />
        ))}
      </RadioGroup>
    </FormControl>
  );
}
