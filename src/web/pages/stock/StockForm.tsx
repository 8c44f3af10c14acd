import { Button, Stack } from '@mui/material';
import type { ReactNode } from 'react';
import { type DefaultValues, type FieldValues, FormProvider } from 'react-hook-form';
import type { z } from 'zod';
import { postJson } from '../../api/http';
import { useCheckedForm, submitHandler } from '../../kit/form';
import { useBooking } from './booking';

/** A form of the stock page: its fields, its door at the server, and what came of it. */
export function StockForm<T extends FieldValues>({
  schema,
  blank,
  path,
  action,
  done,
  onDone,
  children,
}: {
  readonly schema: z.ZodType<T, T>;
  /** What the form starts with; what must be filled in is left out. */
  readonly blank: () => DefaultValues<T>;
  readonly path: string;
  readonly action: string;
  readonly done: (values: T) => string;
  readonly onDone?: () => void;
  readonly children: ReactNode;
}) {
  const form = useCheckedForm(schema, { defaultValues: blank() });
  const { book, notice } = useBooking();
  const send = submitHandler(form, async (values) => {
    if (!(await book(() => postJson(path, values), done(values)))) return;
    form.reset(blank());
    onDone?.();
  });
  return (
    <FormProvider {...form}>
      <Stack component="form" spacing={1.5} sx={{ mt: 1 }} noValidate onSubmit={(event) => void send(event)}>
        {children}
        {notice}
        <Button type="submit" variant="contained" sx={{ alignSelf: 'flex-start' }}>
          {action}
        </Button>
      </Stack>
    </FormProvider>
  );
}
