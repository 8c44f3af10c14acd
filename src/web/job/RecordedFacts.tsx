import ExpandMoreIcon from '@mui/icons-material/ExpandMore';
import { Box, Button, ButtonBase, Paper, Stack, Typography } from '@mui/material';
import { useId, useState } from 'react';
import { capital } from '../../core/craft/judgement';
import { entryInWords, replacedBy } from '../../core/logbook';
import { colours, PRINTED } from '../kit/theme';
import { FileThumb } from './files';
import { useJob } from './JobContext';
import { RecordedBy } from './RecordedBy';
import { type RecordedLine, useDoors, useRecordedLines } from './recordedLines';

/** What is recorded in this stage, a line a fact, in the order it counts. */
export function RecordedFacts() {
  const { lines } = useRecordedLines();
  const { state } = useJob();
  if (lines.length === 0) return null;
  const place = new Map(state.activeEntries.map((entry, index) => [entry.id, index]));
  const inOrder = [...lines].sort((a, b) => (place.get(a.entry.id) ?? 0) - (place.get(b.entry.id) ?? 0));
  return (
    <Paper component="section" aria-label="Recorded here" sx={{ py: 0.5 }}>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {inOrder.map((line) => (
          <Line key={line.entry.id} line={line} />
        ))}
      </Box>
    </Paper>
  );
}

/** One fact: opened it says who and when, shows its files and what it replaced, and can be corrected. */
function Line({ line: { entry, title, words } }: { readonly line: RecordedLine }) {
  const { state, entries, resource } = useJob();
  const { correct } = useDoors();
  const [open, setOpen] = useState(false);
  const detailId = useId();
  const before = replacedBy(entries, state, entry.id);
  const notes = [
    before.length > 0 ? 'corrected' : '',
    entry.attachments.length > 0
      ? `${entry.attachments.length} ${entry.attachments.length === 1 ? 'file' : 'files'}`
      : '',
    entry.sequence === null ? 'waiting to be saved' : '',
  ].filter(Boolean);
  return (
    <Box component="li" aria-label={title} sx={{ '& + &': { borderTop: `1px solid ${colours.thread}` } }}>
      <ButtonBase
        onClick={() => setOpen(!open)}
        className={PRINTED}
        aria-expanded={open}
        aria-controls={open ? detailId : undefined}
        sx={{
          width: '100%',
          justifyContent: 'flex-start',
          textAlign: 'left',
          gap: 1.5,
          px: 2,
          minHeight: 34,
          '@media (pointer: coarse)': { minHeight: 44 },
        }}
      >
        <Typography component="span" sx={{ flexGrow: 1, fontWeight: open ? 700 : 400 }}>
          {words}
        </Typography>
        {notes.length > 0 && (
          <Typography component="span" variant="body2" color="text.secondary" noWrap sx={{ flexShrink: 0 }}>
            {notes.join(', ')}
          </Typography>
        )}
        <ExpandMoreIcon
          aria-hidden
          fontSize="small"
          sx={{ color: colours.smoke, flexShrink: 0, rotate: open ? '180deg' : '0deg' }}
        />
      </ButtonBase>
      {open && (
        <Stack id={detailId} spacing={0.5} sx={{ px: 2, pb: 1 }}>
          <Stack direction="row" spacing={2} sx={{ alignItems: 'center', justifyContent: 'space-between' }}>
            <RecordedBy entry={entry} />
            <Button onClick={() => correct(entry.id)} aria-label={`Correct: ${title}`}>
              Correct
            </Button>
          </Stack>
          {before.map((each) => (
            <Typography key={each.id} variant="body2">
              Before: <s>{capital(entryInWords(each))}</s> · <RecordedBy entry={each} />
            </Typography>
          ))}
          {entry.attachments.length > 0 && (
            <Stack direction="row" spacing={1} sx={{ flexWrap: 'wrap', rowGap: 1 }}>
              {entry.attachments.map((hash) => (
                <FileThumb
                  key={hash}
                  hash={hash}
                  attachment={resource.attachments.find((each) => each.hash === hash)}
                />
              ))}
            </Stack>
          )}
        </Stack>
      )}
    </Box>
  );
}
