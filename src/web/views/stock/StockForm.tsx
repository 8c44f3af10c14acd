import { zodResolver } from '@hookform/resolvers/zod';
import { Alert, Button, Stack } from '@mui/material';
import { type ReactNode, useState } from 'react';
import { type DefaultValues, type FieldValues, FormProvider, useForm } from 'react-hook-form';
import { mutate } from 'swr';
import type { z } from 'zod';
import { postJson, Refused } from '../../api/http';

/** What the server said against something, in words. */
export function refusedWords(error: unknown): string {
  return error instanceof Refused
    ? `${error.message} ${error.problem.whatToDo ?? ''}`
    : 'The server is away: nothing was booked.';
}

interface Said {
  readonly wrong: boolean;
  readonly text: string;
}

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
  readonly schema: z.ZodType<T>;
  readonly blank: () => T;
  readonly path: string;
  readonly action: string;
  readonly done: (values: T) => string;
  readonly onDone?: () => void;
  readonly children: ReactNode;
}) {
  const form = useForm<T>({
    defaultValues: blank() as DefaultValues<T>,
    resolver: zodResolver(schema as never) as never,
  });
  const [said, setSaid] = useState<Said | null>(null);
  const send = form.handleSubmit(async (values) => {
    try {
      await postJson(path, values);
      await mutate('/api/stock');
      setSaid({ wrong: false, text: done(values) });
      form.reset(blank() as DefaultValues<T>);
      onDone?.();
    } catch (error) {
      setSaid({
        wrong: true,
        text: refusedWords(error),
      });
    }
  });
  return (
    <FormProvider {...form}>
      <Stack component="form" spacing={1.5} sx={{ mt: 1 }} noValidate onSubmit={(event) => void send(event)}>
        {children}
        {said && <Alert severity={said.wrong ? 'error' : 'success'}>{said.text}</Alert>}
        <Button type="submit" variant="contained" sx={{ alignSelf: 'flex-start' }}>
          {action}
        </Button>
      </Stack>
    </FormProvider>
  );
}
