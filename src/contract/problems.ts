import { z } from 'zod';

/** A refusal as it crosses the wire (RFC 9457), with the fields that were wrong. */
export const problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  /** What to do about it, where there is something to do. */
  whatToDo: z.string().optional(),
  /** What the log of the server has it under. */
  requestId: z.string().optional(),
  fields: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
  /** How many fields were wrong, where not all are named. */
  fieldsFound: z.int().optional(),
});
export type Problem = z.infer<typeof problem>;

/** So many wrong places of what was sent are named; of the rest it is said how many. */
export const MOST_NAMED = 200;

/** The fields of a failed parse, by path, in the schemas' own words. */
export function fieldsOf(error: z.ZodError): NonNullable<Problem['fields']> {
  return error.issues.map((issue) => ({
    path: issue.path.join('.') || '(the whole)',
    message:
      issue.code === 'unrecognized_keys'
        ? `Not known here: ${issue.keys.join(', ')}. Leave it out.`
        : issue.message,
  }));
}
