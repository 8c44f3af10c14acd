import { zodResolver } from '@hookform/resolvers/zod';
import {
  type FieldError,
  type FieldValues,
  get,
  type SubmitErrorHandler,
  type SubmitHandler,
  useForm,
  type UseFormProps,
  type UseFormReturn,
} from 'react-hook-form';
import type { z } from 'zod';

/** A form that is checked by its schema. It is sent by `submitHandler`, which leads the hand to what is wrong. */
export function useCheckedForm<T extends FieldValues>(
  schema: z.ZodType<T, T>,
  props: Omit<UseFormProps<T>, 'resolver' | 'shouldFocusError'>,
): UseFormReturn<T> {
  return useForm<T>({ ...props, resolver: zodResolver(schema), shouldFocusError: false });
}

/** The same where the schema is chosen while it runs: its values are an object, whatever the schema. */
export function useChosenForm(
  schema: z.ZodType,
  props: Omit<UseFormProps, 'resolver' | 'shouldFocusError'>,
): UseFormReturn {
  return useCheckedForm(schema as z.ZodType<FieldValues, FieldValues>, props);
}

/**
 * What is done as a form is sent. A field that is wrong gets the focus in that moment and never again: the library would
 * ask for it once more when the browser finds time, and what a quick hand types elsewhere by then went into that field.
 */
export function submitHandler<T extends FieldValues>(
  form: UseFormReturn<T>,
  send: SubmitHandler<T>,
  refused?: SubmitErrorHandler<T>,
): ReturnType<UseFormReturn<T>['handleSubmit']> {
  return form.handleSubmit(send, (errors, event) => {
    for (const name of form.control._names.mount) {
      const error: FieldError | undefined = get(errors, name);
      if (error?.ref?.focus) {
        error.ref.focus();
        break;
      }
    }
    return refused?.(errors, event);
  });
}
