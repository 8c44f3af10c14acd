import { Alert, Box, Button, Paper, Stack, Typography } from '@mui/material';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { FormProvider, useFormState } from 'react-hook-form';
import { kindDefinition } from '../../contract';
import { type Entry, entryInWords, type EntryKind, type EntryOf, type Payloads } from '../../core/logbook';
import { capital } from '../../core/craft/judgement';
import { Answers } from '../kit/Answers';
import { useChosenForm, submitHandler } from '../kit/form';
import { KeyCap } from '../kit/KeyCap';
import { NEXT_KEY } from '../kit/theme';
import { focusRequired } from '../kit/keys/required';
import { FilesField, useKeptFiles } from './files';
import { useJob } from './JobContext';
import { useDoors, useRecordedLines, useStandsAsLine } from './recordedLines';

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
  readonly children?: ReactNode;
  /** A question of one answer, which is recorded as it is given: in place of a form. */
  readonly answers?: readonly { readonly label: string; readonly payload: Payloads[K] }[];
  /** Whether the answers have keys just now. */
  readonly keyed?: boolean;
  /** Shown in place of the form while it may not be recorded. */
  readonly instead?: ReactNode;
  /** A form of one row: its button stands in it, and its field says what the title would. */
  readonly inline?: boolean;
  /** Fields that share the row of the button, after the others. */
  readonly beside?: ReactNode;
  /** Where the form of a recorded fact is opened elsewhere than from its line: what follows once it is done with. */
  readonly onCorrected?: () => void;
  /** Whether photos and files may go with it. */
  readonly files?: boolean;
}

/**
 * One fact of a stage: its form while it is wanted or corrected; recorded it stands among the lines of the stage. A
 * correction is a new entry in place of the old one. Where several facts may follow, the form stays and begins anew once
 * its own is recorded, and only then: what is being typed is not cleared by what happens elsewhere.
 */
export function FactCard<K extends EntryKind>(props: Props<K>) {
  const { title, recorded, hint, instead, summary, inline = false, onCorrected } = props;
  const { correctingId } = useRecordedLines();
  const { correct } = useDoors();
  const [turn, setTurn] = useState(0);
  const card = useRef<HTMLElement>(null);
  const correcting = recorded !== null && (onCorrected !== undefined || correctingId === recorded.id);
  const stands = recorded === null || correcting ? null : (recorded as Entry);
  useStandsAsLine(stands, title, stands === null ? '' : (summary ?? capital(entryInWords(stands))));
  useEffect(() => {
    if (correcting) card.current?.querySelector<HTMLElement>('input, select, textarea, button')?.focus();
  }, [correcting]);
  const done = (): void => {
    if (correcting) correct(null);
    onCorrected?.();
    setTurn((before) => before + 1);
  };
  if (stands !== null) return null;
  return (
    <Paper component="section" ref={card} aria-label={title} sx={{ px: 2, py: inline ? 1.25 : 1.5 }}>
      {!(inline && hint === undefined) && (
        <Stack direction="row" sx={{ justifyContent: 'space-between' }}>
          <Typography variant="h3" component="h2">
            {title}
          </Typography>
          <NextKey>m</NextKey>
        </Stack>
      )}
      {hint}
      {instead ??
        (props.answers ? (
          <FactAnswers {...props} answers={props.answers} correcting={correcting} onDone={done} />
        ) : (
          <FactForm key={turn} {...props} correcting={correcting} onDone={done} />
        ))}
    </Paper>
  );
}

/** The key shown at what is wanted next, and nowhere else. */
function NextKey({ children }: { readonly children: string }) {
  return (
    <Box component="span" className={NEXT_KEY} sx={{ display: 'none', ml: 1 }}>
      <KeyCap>{children}</KeyCap>
    </Box>
  );
}

/** Why something is not recorded, and what to do instead. */
const refusalWords = ({
  reasons,
  whatToDo,
}: {
  readonly reasons: readonly string[];
  readonly whatToDo: string;
}): string => [...reasons, whatToDo].join(' ');

interface FormProps<K extends EntryKind> extends Props<K> {
  readonly correcting: boolean;
  readonly onDone: () => void;
}

/** The fact by one of its answers. */
function FactAnswers<K extends EntryKind>({
  kind,
  title,
  recorded,
  well = null,
  answers,
  keyed = true,
  correcting,
  onDone,
}: FormProps<K> & { readonly answers: NonNullable<Props<K>['answers']> }) {
  const { record, refusalOf, technician } = useJob();
  const [refused, setRefused] = useState<string | null>(null);
  const give = (payload: Payloads[K]): void => {
    const refusal = refusalOf(kind, payload, { well, supersedes: recorded ? [recorded.id] : [] });
    setRefused(refusal && refusalWords(refusal));
    if (refusal) return;
    void record(kind, payload, { well, supersedes: recorded ? [recorded.id] : [] });
    onDone();
    focusRequired();
  };
  return (
    <>
      <Answers
        of={title}
        wanted={!correcting}
        keyed={keyed}
        disabled={technician === null}
        inRow
        choices={answers.map(({ label, payload }) => ({ label, onPick: () => give(payload) }))}
      />
      {refused !== null && <Alert severity="error">{refused}</Alert>}
      {correcting && <Button onClick={onDone}>Cancel</Button>}
    </>
  );
}

/** What is wrong and belongs to no field that stands. */
function ErrorsOfNoField() {
  // The library changes its errors in place: what was worked out of them before is not kept.
  'use no memo';
  const { errors } = useFormState();
  const messages = Object.values(errors).flatMap((error) =>
    error && 'message' in error && typeof error.message === 'string' && !('ref' in error && error.ref)
      ? [error.message]
      : [],
  );
  return messages.map((message) => (
    <Alert key={message} severity="error">
      {message}
    </Alert>
  ));
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
  inline = false,
  beside,
}: FormProps<K>) {
  const { record, refusalOf, technician } = useJob();
  const files = useKeptFiles(recorded?.attachments ?? []);
  const form = useChosenForm(kindDefinition(kind).schema, {
    defaultValues: correcting && recorded ? recorded.payload : defaults,
  });
  const submit = submitHandler(form, async (values) => {
    // The judge of the server is asked here first: what it would refuse is said at its field, not on a list behind the page.
    const refusal = refusalOf(kind, values as Payloads[K], {
      well,
      supersedes: recorded ? [recorded.id] : [],
    });
    if (refusal) {
      form.setError(refusal.path ?? 'root', { message: refusalWords(refusal) }, { shouldFocus: true });
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
    focusRequired();
    await kept;
  });
  return (
    <FormProvider {...form}>
      <Stack
        component="form"
        spacing={inline ? 1.5 : 1}
        direction={inline ? { xs: 'column', sm: 'row' } : 'column'}
        sx={inline ? { flexWrap: 'wrap' } : { mt: 0.75 }}
        onSubmit={(event) => void submit(event)}
        noValidate
      >
        {children}
        <ErrorsOfNoField />
        <Stack
          direction="row"
          spacing={1}
          sx={{
            alignItems: 'start',
            flexWrap: inline ? 'nowrap' : 'wrap',
            columnGap: 2,
            '& > .MuiFormControl-root:has([role="radiogroup"])': { flex: '1 1 370px' },
          }}
        >
          {beside}
          <Button
            type="submit"
            variant="contained"
            disabled={technician === null}
            sx={inline ? { minHeight: 48 } : {}}
          >
            {correcting ? 'Record the correction' : action}
            <NextKey>Enter</NextKey>
          </Button>
          {correcting && <Button onClick={onDone}>Cancel</Button>}
          {takesFiles && <FilesField files={files} />}
        </Stack>
      </Stack>
    </FormProvider>
  );
}
