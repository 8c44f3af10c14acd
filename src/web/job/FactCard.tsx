import { Alert, Button, Paper, Stack, Typography } from '@mui/material';
import { type ReactNode, useState } from 'react';
import { type FieldValues, FormProvider, useForm } from 'react-hook-form';
import { kindDefinition } from '../../contract';
import {
  clockApart,
  elsewhereWords,
  type Entry,
  entryInWords,
  type EntryKind,
  type EntryOf,
  type Payloads,
} from '../../core/logbook';
import { capital } from '../../core/craft/judgement';
import { localTime } from '../../core/craft/time';
import { formResolver } from '../kit/formResolver';
import { focusNextWanted } from '../kit/keys/wanted';
import { FilesField, FileThumb, useKeptFiles } from './files';
import { useJob } from './JobContext';

/** What a form begins with: fields of the payload, each as it is recorded, or not filled in yet. */
export type FormDefaults<P> = { readonly [Field in keyof P]?: P[Field] | null | undefined | '' };

interface Props<K extends EntryKind> {
  readonly kind: K;
  readonly title: string;
  /** The fact as it stands, or null while it is wanted. */
  readonly recorded: EntryOf<K> | null;
  readonly defaults: FormDefaults<Payloads[K]>;
  readonly well?: string | null;
  readonly action?: string;
  readonly hint?: ReactNode;
  /** The recorded fact in words, where the entry alone cannot say it (a time in the shop’s zone). */
  readonly summary?: string | undefined;
  /** The fields; their names are the payload's. */
  readonly children: ReactNode;
  /** Shown in place of the form while it may not be recorded. */
  readonly instead?: ReactNode;
  /** Whether photos and files may go with it. */
  readonly files?: boolean;
  /** What contradicts what the job or the book knows, which the schema cannot see; shown at its field. */
  readonly judge?: (payload: Payloads[K]) => { readonly path: string; readonly reason: string } | null;
}

/** Who recorded an entry, and when. */
export function RecordedBy({ entry }: { readonly entry: Entry }) {
  const { technicians, context } = useJob();
  const who = technicians.find((each) => each.id === entry.technicianId)?.initials ?? '?';
  const apart = clockApart(entry);
  return (
    <Typography component="span" variant="body2" color="text.secondary">
      {[who, elsewhereWords(entry)].filter(Boolean).join(' ')},{' '}
      {localTime(entry.occurredAt, context.shop.zone, 'HH:mm')}
      {entry.sequence === null ? ', waiting to be saved' : ''}
      {apart === null ? '' : `, ${apart}`}
    </Typography>
  );
}

/**
 * One fact of a stage: its form while it is wanted, the fact in a line once recorded, and the way to correct it.
 * A correction is a new entry in place of the old one. Where several facts may follow, the form stays and begins anew
 * once its own is recorded, and only then: what is being typed is not cleared by what happens elsewhere.
 */
export function FactCard<K extends EntryKind>(props: Props<K>) {
  const { title, recorded, hint, instead, summary } = props;
  const { resource } = useJob();
  const [correcting, setCorrecting] = useState(false);
  const [turn, setTurn] = useState(0);
  const showForm = recorded === null || correcting;
  return (
    <Paper component="section" aria-label={title} sx={{ px: 2, py: showForm ? 2 : 0.75 }}>
      <Stack direction="row" spacing={2} sx={{ alignItems: 'center', justifyContent: 'space-between' }}>
        {recorded ? (
          <Typography>
            <strong>{summary ?? capital(entryInWords(recorded as Entry))}</strong> ·{' '}
            <RecordedBy entry={recorded as Entry} />
          </Typography>
        ) : (
          <Typography variant="h3" component="h2">
            {title}
          </Typography>
        )}
        {recorded && !correcting && (
          <Button size="small" onClick={() => setCorrecting(true)} aria-label={`Correct: ${title}`}>
            Correct
          </Button>
        )}
      </Stack>
      {recorded && !correcting && recorded.attachments.length > 0 && (
        <Stack direction="row" spacing={1} sx={{ flexWrap: 'wrap', rowGap: 1, pb: 0.5 }}>
          {recorded.attachments.map((hash) => (
            <FileThumb
              key={hash}
              hash={hash}
              attachment={resource.attachments.find((each) => each.hash === hash)}
            />
          ))}
        </Stack>
      )}
      {showForm && hint}
      {showForm &&
        (instead ?? (
          <FactForm
            key={turn}
            {...props}
            correcting={correcting}
            onDone={() => {
              setCorrecting(false);
              setTurn((before) => before + 1);
            }}
          />
        ))}
    </Paper>
  );
}

interface FormProps<K extends EntryKind> extends Props<K> {
  readonly correcting: boolean;
  readonly onDone: () => void;
}

function FactForm<K extends EntryKind>({
  kind,
  recorded,
  defaults,
  well = null,
  action = 'Record',
  children,
  correcting,
  onDone,
  files: takesFiles = false,
  judge,
}: FormProps<K>) {
  const { record, technician } = useJob();
  const files = useKeptFiles(recorded?.attachments ?? []);
  const form = useForm<FieldValues>({
    defaultValues: correcting && recorded ? recorded.payload : defaults,
    resolver: formResolver(kindDefinition(kind).schema),
    shouldFocusError: true,
  });
  const submit = form.handleSubmit(async (values) => {
    const problem = judge?.(values as Payloads[K]) ?? null;
    if (problem) {
      form.setError(problem.path, { message: problem.reason }, { shouldFocus: true });
      return;
    }
    const kept = record(kind, values as Payloads[K], {
      well,
      supersedes: recorded ? [recorded.id] : [],
      attachments: files.hashes,
    });
    // The fact is on the screen already. A form that began anew only once the browser had written it down would take
    // with it what a quick hand has typed since.
    onDone();
    // The card has turned from form to line by the next frame: then on to what is still wanted. Not later, when the
    // hand may be elsewhere.
    requestAnimationFrame(() => requestAnimationFrame(focusNextWanted));
    await kept;
  });
  const wide = Object.entries(form.formState.errors).flatMap(([, error]) =>
    error && 'message' in error && typeof error.message === 'string' && !('ref' in error && error.ref)
      ? [error.message]
      : [],
  );
  return (
    <FormProvider {...form}>
      <Stack
        component="form"
        spacing={1.5}
        sx={{ mt: 1 }}
        onSubmit={(event) => void submit(event)}
        noValidate
      >
        {children}
        {takesFiles && <FilesField files={files} />}
        {wide.map((message) => (
          <Alert key={message} severity="error">
            {message}
          </Alert>
        ))}
        <Stack direction="row" spacing={1}>
          <Button type="submit" variant="contained" disabled={technician === null}>
            {correcting ? 'Record the correction' : action}
          </Button>
          {correcting && <Button onClick={onDone}>Leave as it was</Button>}
        </Stack>
      </Stack>
    </FormProvider>
  );
}
