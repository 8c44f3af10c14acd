import { zodResolver } from '@hookform/resolvers/zod';
import type { FieldValues, Resolver } from 'react-hook-form';
import type { z } from 'zod';

/** The rules of a form whose schema is chosen while it runs: its values are an object, whatever the schema. */
export function formResolver(schema: z.ZodType): Resolver {
  return zodResolver(schema as z.ZodType<FieldValues, FieldValues>);
}
