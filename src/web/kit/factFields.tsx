import type { ReactNode } from 'react';
import type { z } from 'zod';
import { type FactField, fieldLabel, labelIn } from '../../contract';
import type { EntryKind, Payloads } from '../../core/logbook';
import { type AsTyped, FIELDS, useFieldValue } from './fields';

type Labelled<Name extends string, Field> = Field extends (props: infer Props) => ReactNode
  ? (
      props: Omit<Props, 'name' | 'label'> & {
        readonly name: Name;
        /** Where the watch at hand has another word for it, holes for notches, or the sentence goes on behind the label. */
        readonly shownAs?: string;
        /** Where the fact stands in a form of several, e.g. `watch.`. */
        readonly at?: string;
      },
    ) => ReactNode
  : never;

type LabelledFields<Names extends string> = {
  readonly [Field in keyof typeof FIELDS]: Labelled<Names, (typeof FIELDS)[Field]>;
};

type FactFields<K extends EntryKind> = LabelledFields<FactField<K>> & {
  /** What one field holds, as it is typed. */
  readonly useValue: <N extends keyof Payloads[K] & string>(name: N) => AsTyped<Payloads[K][N]>;
};

interface AnyProps {
  readonly name: string;
  readonly shownAs?: string;
  readonly at?: string;
}

function labelled(labelOf: (name: string) => string): Readonly<Record<string, unknown>> {
  return Object.fromEntries(
    Object.entries(FIELDS).map(([what, field]) => {
      // Which props go with which field is told by the type of the whole.
      const Field = field as (props: { readonly name: string; readonly label: string }) => ReactNode;
      const Labelled = ({ name, at = '', shownAs, ...props }: AnyProps) => (
        <Field {...props} name={`${at}${name}`} label={shownAs ?? labelOf(name)} />
      );
      return [what, Labelled];
    }),
  );
}

/**
 * The fields for the form of a fact: they take only names that the fact has, and are called what its description in the
 * contract calls them, so that a form and its refusals say the same.
 */
export function factFields<K extends EntryKind>(kind: K): FactFields<K> {
  return {
    ...labelled((name) => fieldLabel(kind, name as FactField<K>)),
    useValue: (name: string) => useFieldValue(name),
  } as unknown as FactFields<K>;
}

/** The same for what is no fact of a job: what the schema of a door takes, called what the schema calls it. */
export function schemaFields<T extends object>(schema: z.ZodType<T>): LabelledFields<keyof T & string> {
  return labelled((name) => labelIn(schema, name)) as LabelledFields<keyof T & string>;
}
