import type { ReactNode } from 'react';
import { type FactField, fieldLabel } from '../../contract';
import type { EntryKind, Payloads } from '../../core/logbook';
import { type AsTyped, FIELDS, useFieldValue } from './fields';

type OfFact<K extends EntryKind, Field> = Field extends (props: infer Props) => ReactNode
  ? (
      props: Omit<Props, 'name' | 'label'> & {
        readonly name: FactField<K>;
        /** Where the watch at hand has another word for it, holes for notches, or the sentence goes on behind the label. */
        readonly shownAs?: string;
        /** Where the fact stands in a form of several, e.g. `watch.`. */
        readonly at?: string;
      },
    ) => ReactNode
  : never;

type FactFields<K extends EntryKind> = {
  readonly [Field in keyof typeof FIELDS]: OfFact<K, (typeof FIELDS)[Field]>;
} & {
  /** What one field holds, as it is typed. */
  readonly useValue: <N extends keyof Payloads[K] & string>(name: N) => AsTyped<Payloads[K][N]>;
};

interface AnyProps {
  readonly name: string;
  readonly shownAs?: string;
  readonly at?: string;
}

/**
 * The fields for the form of a fact: they take only names that the fact has, and are called what its description in the
 * contract calls them, so that a form and its refusals say the same.
 */
export function factFields<K extends EntryKind>(kind: K): FactFields<K> {
  const labelled = Object.fromEntries(
    Object.entries(FIELDS).map(([what, field]) => {
      // Which props go with which field is told by the type of the whole.
      const Field = field as (props: { readonly name: string; readonly label: string }) => ReactNode;
      const Labelled = ({ name, at = '', shownAs, ...props }: AnyProps) => (
        <Field {...props} name={`${at}${name}`} label={shownAs ?? fieldLabel(kind, name as FactField<K>)} />
      );
      return [what, Labelled];
    }),
  );
  return {
    ...labelled,
    useValue: (name: string) => useFieldValue(name),
  } as unknown as FactFields<K>;
}
