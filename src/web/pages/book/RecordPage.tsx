import { amount } from '../../../core/craft/money';
import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogContentText,
  DialogTitle,
  Paper,
  Stack,
  Typography,
} from '@mui/material';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { mutate } from 'swr';
import { useResource } from '../../api/resource';
import { type AnyField, type AnyFields, type RecordRevision, shortLabel, unitOf } from '../../../contract';
import { type Book, changedFields } from '../../../core/craft/book';
import { capital, figure } from '../../../core/craft/judgement';
import type { CaseType } from '../../../core/craft/cases';
import { localMoment } from '../../../core/craft/time';
import { formatLignes } from '../../../core/craft/units';
import { useBench } from '../../api/bench';
import { failedInWords, postJson } from '../../api/http';
import type { SeenShop } from '../../api/resources';
import { Fold } from '../../kit/Fold';
import { LampAnswer } from '../../kit/Lamp';
import { StageLayout } from '../../kit/StageLayout';
import { NoSuchPage } from '../NoSuchPage';
import { CalibreLamp, CalibreMat } from './CalibrePage';
import { RecordForm } from './RecordForm';
import type { RecordView } from './records';
/** A field of a record as one reads it; the parts of a nested list a line each. */
function valueLines(name: string, spec: AnyField, body: object, book: Book): readonly string[] {
  const value = (body as Record<string, unknown>)[name];
  if (value === null || value === undefined || value === '') return ['not entered'];
  const inner = (fields: AnyFields, part: object): string =>
    Object.entries(fields)
      .filter(([own]) => {
        const held = (part as Record<string, unknown>)[own];
        return held !== '' && held !== null && !(Array.isArray(held) && held.length === 0);
      })
      .map(
        ([own, field]) =>
          `${shortLabel(field.label).toLowerCase()} ${valueLines(own, field, part, book).join(' ')}`,
      )
      .join(', ');
  switch (spec.as) {
    case 'maker':
      return [book.maker(value as string)?.name ?? (value as string)];
    case 'tick':
      return [value === true ? 'yes' : 'no'];
    case 'number': {
      const size = name === 'widthMm' ? ` (${formatLignes(value as number)})` : '';
      const unit = unitOf(spec);
      return [`${figure(value as number)}${unit && ` ${unit}`}${size}`];
    }
    case 'money':
      return [amount(value as number)];
    case 'figure choice':
      return [typeof value === 'string' || typeof value === 'number' ? String(value) : ''];
    case 'parts': {
      const parts = value as readonly object[];
      return parts.length === 0 ? ['none entered'] : parts.map((part) => inner(spec.fields, part));
    }
    case 'part or nothing':
      return [inner(spec.fields, value)];
    case 'lines':
    case 'numbers':
    case 'several': {
      const list = value as readonly (string | number)[];
      return [list.length === 0 ? 'none entered' : list.join(' · ')];
    }
    default:
      return [value as string];
  }
}

function Facts({
  view,
  body,
  book,
}: {
  readonly view: RecordView;
  readonly body: object;
  readonly book: Book;
}) {
  return (
    <Paper component="section" aria-label="Record in the book" sx={{ p: 2 }}>
      <Box
        component="dl"
        sx={{
          display: 'grid',
          gridTemplateColumns: 'minmax(90px, 190px) 1fr',
          columnGap: 3,
          rowGap: 0.75,
          m: 0,
        }}
      >
        {Object.entries(view.fields).map(([name, spec]) => (
          <Box key={name} sx={{ display: 'contents' }}>
            <Typography component="dt" sx={{ fontWeight: 700 }}>
              {shortLabel(spec.label)}
            </Typography>
            <Typography component="dd" sx={{ m: 0, overflowWrap: 'anywhere' }}>
              {valueLines(name, spec, body, book).map((line) => (
                <Box key={line}>{line}</Box>
              ))}
            </Typography>
          </Box>
        ))}
      </Box>
    </Paper>
  );
}

function HistoryOfRecord({
  history,
  shop,
}: {
  readonly history: readonly RecordRevision[];
  readonly shop: SeenShop;
}) {
  const who = (id: string | null): string =>
    shop.technicians.find((each) => each.id === id)?.initials ?? 'as shipped';
  return (
    <Paper component="section" aria-label="Revisions" sx={{ p: 2 }}>
      <Typography variant="h3" component="h2">
        Revisions, the newest first
      </Typography>
      {history.map((each, index) => {
        const before = history[index + 1]?.body ?? null;
        const changes = before === null ? [] : changedFields(before, each.body);
        return (
          <Box key={each.revision} sx={{ mt: 1 }}>
            <Typography>
              <strong>{each.revision}</strong>, {localMoment(each.recordedAt, shop.shop.zone)},{' '}
              {who(each.technicianId)}
              {each.removed ? ': removed from the book' : before === null ? ': entered' : ''}
            </Typography>
            {changes.map((change) => (
              <Typography key={change.field} variant="body2" sx={{ overflowWrap: 'anywhere' }}>
                {change.field}: {change.before || 'nothing'} → {change.after || 'nothing'}
              </Typography>
            ))}
          </Box>
        );
      })}
    </Paper>
  );
}

function CaseLamp({ type, book }: { readonly type: CaseType; readonly book: Book }) {
  const rings = book.gasketsOf(type.code);
  return (
    <LampAnswer
      question="Rings in the book that fit it"
      tone={rings.length > 0 ? 'good' : 'open'}
      answer={rings.map((ring) => ring.code).join(', ') || 'None entered'}
      reasons={rings.map((ring) => `${ring.profile}, ${ring.material}.`)}
    />
  );
}

function TakeOut({
  view,
  body,
  id,
  basedOn,
}: {
  readonly view: RecordView;
  readonly body: object;
  readonly id: string;
  readonly basedOn: number;
}) {
  const { technicianId } = useBench();
  const navigate = useNavigate();
  const { enqueueSnackbar } = useSnackbar();
  const [asking, setAsking] = useState(false);
  const takeOut = async (): Promise<void> => {
    setAsking(false);
    try {
      await postJson('/api/catalogue/records', {
        kind: view.kind,
        id,
        body,
        removed: true,
        basedOn,
        technicianId,
      });
      await mutate('/api/shop');
      await navigate(`${view.base}/${view.segment}`);
    } catch (error) {
      enqueueSnackbar(failedInWords(error, 'nothing was changed.'), {
        variant: 'error',
      });
    }
  };
  return (
    <>
      <Button onClick={() => setAsking(true)} disabled={technicianId === null}>
        Remove from the book
      </Button>
      <Dialog open={asking} onClose={() => setAsking(false)} aria-labelledby="take-out-title" maxWidth="xs">
        <DialogTitle id="take-out-title">Remove this {view.one} from the book?</DialogTitle>
        <DialogContent>
          <DialogContentText>
            Its revisions stay, and jobs that used it keep their records. New jobs no longer find it.
          </DialogContentText>
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setAsking(false)} autoFocus>
            Cancel
          </Button>
          <Button variant="contained" onClick={() => void takeOut()}>
            Remove
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}

interface Props {
  readonly view: RecordView;
  readonly book: Book;
  readonly id: string;
  readonly shop: SeenShop;
}

/** One record: as it stands, its drawing where it has one, its revisions, and the form that corrects it. */
export function RecordPage({ view, book, id, shop }: Props) {
  const isNew = id === 'new';
  const [correcting, setCorrecting] = useState(isNew);
  const navigate = useNavigate();
  const { data: history, error } = useResource<RecordRevision[]>(
    isNew ? null : `/api/catalogue/${view.kind}/${encodeURIComponent(id)}/history`,
    { kept: false },
  );
  const listed = view.listed(book).find((each) => each.id === id);
  const body = listed?.body ?? null;
  const calibre = view.kind === 'calibre' ? book.calibre(id) : null;
  const caseType = view.kind === 'caseType' ? book.caseType(id) : null;
  if (!isNew && body === null && history === undefined)
    return error === undefined ? null : <NoSuchPage what={view.one} />;
  if (!isNew && body === null && !history?.[0]?.removed) return <NoSuchPage what={view.one} />;
  const newest = history?.[0]?.revision ?? null;
  return (
    <StageLayout
      mat={
        <>
          <Stack direction="row" spacing={1} sx={{ alignItems: 'center', flexWrap: 'wrap', rowGap: 1 }}>
            <Typography variant="h2" component="h2" sx={{ flexGrow: 1 }}>
              {isNew ? `New ${view.one}` : (listed?.name ?? 'Removed from the book')}
            </Typography>
            {body !== null && !correcting && (
              <>
                <Button variant="outlined" onClick={() => setCorrecting(true)} disabled={newest === null}>
                  Edit
                </Button>
                {newest !== null && <TakeOut view={view} body={body} id={id} basedOn={newest} />}
              </>
            )}
          </Stack>
          {correcting ? (
            <RecordForm
              view={view}
              book={book}
              body={body}
              basedOn={isNew ? null : newest}
              onDone={() => (isNew ? void navigate(`${view.base}/${view.segment}`) : setCorrecting(false))}
            />
          ) : (
            body && (
              <>
                {calibre && <CalibreMat calibre={calibre} book={book} zone={shop.shop.zone} />}
                {calibre ? (
                  <Fold summary="All fields">
                    <Facts view={view} body={body} book={book} />
                  </Fold>
                ) : (
                  <Facts view={view} body={body} book={book} />
                )}
              </>
            )
          )}
          {history && <HistoryOfRecord history={history} shop={shop} />}
        </>
      }
      lamp={
        calibre ? (
          <CalibreLamp calibre={calibre} />
        ) : caseType ? (
          <CaseLamp type={caseType} book={book} />
        ) : (
          <LampAnswer
            question="Record in the book"
            tone="good"
            answer={body === null ? 'Nothing yet' : capital(view.one)}
            reasons={['Each change makes a new revision. A signed job keeps the revision it was based on.']}
          />
        )
      }
    />
  );
}
