import type { ReactNode } from 'react';
import type { EntryKind, EntryOf, Payloads } from '../../core/logbook';
import { FactCard, type FormDefaults } from './FactCard';

interface Props<K extends EntryKind> {
  readonly kind: K;
  readonly title: string;
  readonly recorded: readonly EntryOf<K>[];
  readonly defaults: FormDefaults<Payloads[K]>;
  readonly action?: string;
  readonly hint?: ReactNode;
  /** The fields; their names are the payload's. */
  readonly children?: ReactNode;
  /** A question of one answer, in place of a form. */
  readonly answers?: readonly { readonly label: string; readonly payload: Payloads[K] }[];
  readonly instead?: ReactNode;
  readonly files?: boolean;
  readonly inline?: boolean;
  readonly well?: string | null;
}

/** Facts of which a job may hold several: each in its line, and a form that stays for the next. */
export function FactList<K extends EntryKind>({ recorded, title, ...card }: Props<K>) {
  return (
    <>
      {recorded.map((entry, index) => (
        <FactCard key={entry.id} {...card} title={`${title} ${index + 1}`} recorded={entry} />
      ))}
      <FactCard {...card} title={title} recorded={null} />
    </>
  );
}
