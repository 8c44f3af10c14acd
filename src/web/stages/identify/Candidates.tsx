import { Box, Button, LinearProgress, Paper, Stack, Typography } from '@mui/material';
import { useEffect, useRef, useState } from 'react';
import { type Candidate, cellSizes, compareMovements, type Weighing } from '../../../core/craft/identify';
import { figure, percent } from '../../../core/craft/judgement';
import { asRevision, calibreWords } from '../../../core/craft/movements';
import { Fold } from '../../kit/Fold';
import { KeyCap } from '../../kit/KeyCap';
import { useKey } from '../../kit/keys/KeysProvider';
import { focusElement } from '../../kit/keys/required';
import { colours } from '../../kit/theme';
import { useJob } from '../../job/JobContext';
import { NativeSelect } from '../../kit/NativeSelect';
import { useRecordMovement } from './recordMovement';
import { useAnswer } from './useIdentification';

/** Bars end here; a piece that says more than this says enough. */
const MOST_BITS = 12;

function times(bits: number): string {
  const factor = 2 ** Math.abs(bits);
  const words = factor >= 1000 ? 'over 1000' : figure(factor, factor < 10 ? 1 : 0);
  return bits >= 0 ? `for it, ×${words}` : `against it, ÷${words}`;
}

/** What one piece of evidence says, as a bar to the right for it or to the left against it. */
function WeighingBar({ weighing }: { readonly weighing: Weighing }) {
  const share = Math.min(1, Math.abs(weighing.bits) / MOST_BITS) * 50;
  const speaksFor = weighing.bits >= 0;
  return (
    <Box
      component="li"
      sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1.4fr) 96px minmax(0, 1fr)', gap: 1, py: 0.25 }}
    >
      <Typography variant="body2">
        {weighing.seen}: {weighing.book}
      </Typography>
      <Box
        aria-hidden
        sx={{ position: 'relative', height: 14, mt: 0.5, borderBottom: `1px solid ${colours.thread}` }}
      >
        <Box
          sx={{ position: 'absolute', left: '50%', top: 0, bottom: 0, width: '1.5px', bgcolor: colours.soot }}
        />
        <Box
          sx={{
            position: 'absolute',
            top: 2,
            bottom: 2,
            width: `${share}%`,
            ...(speaksFor ? { left: '50%' } : { right: '50%' }),
            bgcolor: speaksFor ? colours.verdigris : colours.cinnabar,
          }}
        />
      </Box>
      <Typography variant="body2">{times(weighing.bits)}</Typography>
    </Box>
  );
}

/** The first candidates are named with one key. */
const CANDIDATE_KEYS = ['z', 'x', 'c'] as const;

function CandidateKey({
  name,
  words,
  onChoose,
}: {
  readonly name: string;
  readonly words: string;
  readonly onChoose: () => void;
}) {
  useKey(name, words, onChoose);
  return null;
}

function Weighings({ of, why }: { readonly of: string; readonly why: Candidate['why'] }) {
  return (
    <Box
      component="ul"
      aria-label={`Evidence for and against ${of}`}
      sx={{ listStyle: 'none', p: 0, m: 0, mt: 0.5 }}
    >
      {why.map((weighing) => (
        <WeighingBar key={weighing.look} weighing={weighing} />
      ))}
    </Box>
  );
}

/** How likely it is, and what tells most. */
function Likelihood({
  candidate,
  words,
  whyOpen,
  onWhy,
}: {
  readonly candidate: Candidate;
  readonly words: string;
  readonly whyOpen: boolean;
  readonly onWhy: () => void;
}) {
  const [best] = [...candidate.why].sort((a, b) => Math.abs(b.bits) - Math.abs(a.bits));
  return (
    <Box sx={{ flexGrow: 1, minWidth: 80 }}>
      <LinearProgress
        variant="determinate"
        value={candidate.probability * 100}
        aria-label={`${words}: ${percent(candidate.probability)}`}
        sx={{ height: 10, borderRadius: 1 }}
      />
      <Typography variant="body2">
        {percent(candidate.probability)}
        {best ? `: ${best.book}` : ''}{' '}
        <Button
          size="small"
          onClick={onWhy}
          aria-expanded={whyOpen}
          aria-label={`Why ${words}`}
          sx={{ minWidth: 0, py: 0, my: -1 }}
        >
          Why
        </Button>
      </Typography>
    </Box>
  );
}

function CandidateRow({
  candidate,
  rank,
  chosen,
  hasChosen,
  isKnown,
}: {
  readonly candidate: Candidate;
  readonly rank: number;
  readonly chosen: boolean;
  readonly hasChosen: boolean;
  /** Whether the evidence settles which it is: only then the focus comes to it. */
  readonly isKnown: boolean;
}) {
  const { book, technician, state } = useJob();
  const recordMovement = useRecordMovement();
  const words = calibreWords(candidate.code, candidate.revision);
  const [whyOpen, setWhyOpen] = useState(false);
  const engraved = state.facts.engraving !== null;
  const choose = (): void =>
    recordMovement({
      calibreId: candidate.calibreId,
      revision: candidate.revision,
      code: candidate.code,
      by: engraved && candidate.why.length === 1 ? 'engraving' : 'evidence',
    });
  const keyName = chosen || hasChosen || technician === null ? null : (CANDIDATE_KEYS[rank] ?? null);
  const button = useRef<HTMLButtonElement>(null);
  const wanted = rank === 0 && !hasChosen && isKnown;
  useEffect(() => {
    // The evidence is weighed beside the page, and may settle it after the focus looked for what is wanted.
    if (wanted) focusElement(button.current);
  }, [wanted]);
  return (
    <Box component="li">
      {keyName !== null && <CandidateKey name={keyName} words={`It is ${words}`} onChoose={choose} />}
      <Stack direction="row" spacing={2} sx={{ alignItems: 'center' }}>
        <Box sx={{ minWidth: 130 }}>
          <Typography variant="mark">{words}</Typography>
          <Typography variant="body2" color="text.secondary">
            {book.maker(candidate.makerId)?.name ?? candidate.makerId}
          </Typography>
        </Box>
        <Likelihood
          candidate={candidate}
          words={words}
          whyOpen={whyOpen}
          onWhy={() => setWhyOpen(!whyOpen)}
        />
        {chosen ? (
          <Typography sx={{ fontWeight: 700 }}>chosen</Typography>
        ) : (
          <Button
            variant={rank === 0 ? 'contained' : 'outlined'}
            sx={{ whiteSpace: 'nowrap', flexShrink: 0, gap: 1 }}
            disabled={technician === null}
            ref={button}
            data-wanted={wanted}
            onClick={choose}
          >
            {keyName !== null && <KeyCap>{keyName}</KeyCap>}
            Confirm {words}
          </Button>
        )}
      </Stack>
      {whyOpen && <Weighings of={words} why={candidate.why} />}
    </Box>
  );
}

function SideBySide({ candidates }: { readonly candidates: readonly Candidate[] }) {
  const { book } = useJob();
  const keys = candidates.map(({ calibreId, revision }) => `${calibreId}|${revision ?? ''}`);
  const [picked, setPicked] = useState<readonly [string | null, string | null]>([null, null]);
  const at = (index: 0 | 1): number => {
    const found = keys.indexOf(picked[index] ?? '');
    return found < 0 ? index : found;
  };
  const [first, second] = [candidates[at(0)], candidates[at(1)]];
  const calibres = [first, second].map((each) => each && book.calibre(each.calibreId));
  const [one, other] = calibres;
  if (!first || !second || !one || !other) return null;
  const differences = compareMovements(
    [asRevision(one, first.revision), asRevision(other, second.revision)],
    (makerId) => book.maker(makerId)?.sign ?? null,
    cellSizes(book),
    [first.revision, second.revision],
  );
  const select = (index: 0 | 1, label: string) => (
    <NativeSelect
      label={label}
      value={keys[at(index)] ?? ''}
      options={candidates.map(({ code, revision }, place) => ({
        value: keys[place] ?? '',
        label: calibreWords(code, revision),
      }))}
      onChange={(key) => setPicked(index === 0 ? [key, picked[1]] : [picked[0], key])}
    />
  );
  return (
    <Fold summary="Two side by side" sx={{ mt: 1 }}>
      <Stack direction="row" spacing={1} sx={{ my: 1 }}>
        {select(0, 'One')}
        {select(1, 'The other')}
      </Stack>
      {differences.length === 0 ? (
        <Typography>The book has no feature that separates them.</Typography>
      ) : (
        <Box
          component="table"
          aria-label="Differences"
          sx={{
            borderCollapse: 'collapse',
            width: '100%',
            '& td, & th': { textAlign: 'left', py: 0.5, pr: 1, borderTop: `1px solid ${colours.thread}` },
          }}
        >
          <thead>
            <tr>
              <th scope="col">Look at</th>
              <th scope="col">{calibreWords(first.code, first.revision)}</th>
              <th scope="col">{calibreWords(second.code, second.revision)}</th>
              <th scope="col">Takes</th>
            </tr>
          </thead>
          <tbody>
            {differences.map((each) => (
              <tr key={each.look}>
                <th scope="row">{each.words}</th>
                <td>{each.first}</td>
                <td>{each.second}</td>
                <td>{each.effort === 'glance' ? 'a glance' : each.effort}</td>
              </tr>
            ))}
          </tbody>
        </Box>
      )}
    </Fold>
  );
}

/** The likeliest movements, each with what speaks for and against it. */
export function Candidates() {
  const { state } = useJob();
  const { answer, counting, failed } = useAnswer();
  if (counting.length === 0 || (failed && answer === null)) return null;
  if (answer === null) return <LinearProgress aria-label="Searching the book" />;
  const { engraved } = answer;
  const { candidates, notInBook, others } = answer.identification;
  const shown = candidates.filter(({ probability }, index) => index < 5 && probability >= 0.005);
  const chosen = state.facts.movement?.payload ?? null;
  return (
    <Paper component="section" aria-label="Candidates" sx={{ p: 2 }}>
      <Typography variant="h3" component="h2">
        Candidates
      </Typography>
      <Stack component="ol" spacing={1} sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}>
        {shown.map((candidate, index) => (
          <CandidateRow
            key={`${candidate.calibreId}-${candidate.revision}`}
            candidate={candidate}
            rank={index}
            chosen={
              chosen !== null &&
              chosen.calibreId === candidate.calibreId &&
              chosen.revision === candidate.revision
            }
            hasChosen={chosen !== null}
            isKnown={answer.identification.verdict === 'known'}
          />
        ))}
        <Typography component="li">
          Not in the book: {percent(notInBook)}
          {others >= 0.005 ? `; all others: ${percent(others)}` : ''}
        </Typography>
      </Stack>
      {engraved?.verdict === 'read' && (engraved.cases[0] || engraved.serial !== null) && (
        <Typography>
          {engraved.cases[0] ? `Case code ${engraved.cases[0].code}. ` : ''}
          {engraved.serial === null ? '' : `Serial ${engraved.serial}.`}
        </Typography>
      )}
      {candidates.length > 1 && <SideBySide candidates={candidates} />}
    </Paper>
  );
}
