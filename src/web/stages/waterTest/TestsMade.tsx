import { Box, Paper, Typography } from '@mui/material';
import { lazy, Suspense } from 'react';
import { flowInWords, type JudgedTest, leakSettingOf, testInWords } from '../../../core/advice/leaks';
import { capital } from '../../../core/craft/judgement';
import { entryInWords } from '../../../core/logbook';
import { Fold } from '../../kit/Fold';
import { colours } from '../../kit/theme';
import { useJob } from '../../job/JobContext';
import { RecordedBy } from '../../job/RecordedBy';
import { useResiduals } from './leakWorker';
import { PlacesFigure } from './Places';
import { useTesting } from './useTesting';

const TraceFigure = lazy(() => import('../../figures/TraceFigure'));

/** The record of a test with the fit through it, and what the fit leaves. */
function Residuals({ judged }: { readonly judged: JudgedTest }) {
  const { facts } = useJob().state;
  const { record } = judged.test.payload;
  const { atS = [], overBar = [], deflectionUm = [] } = record ?? {};
  const kept = { atS, overBar, deflectionUm };
  const found = useResiduals(kept, leakSettingOf(judged.test.payload, facts));
  return (
    <Suspense>
      <TraceFigure record={found?.record ?? kept} fitUm={found?.fitUm ?? null} />
      {found && <TraceFigure record={found.record} leftUm={found.leftUm} heightPx={120} />}
    </Suspense>
  );
}

const MARK: Readonly<Record<string, string>> = { tight: '●', leaks: '■', 'not clear': '■' };

/** Every test of the visit with what it shows; one that failed stays. */
export function TestsMade() {
  const { tests } = useTesting();
  const { state } = useJob();
  if (tests.length === 0) return null;
  return (
    <Paper component="section" aria-label="Tests made" sx={{ px: 2, py: 1.5 }}>
      <Typography variant="h3" component="h2">
        Tests made
      </Typography>
      {tests.map((judged) => {
        const { test, shows, leak, stands, takenBack, takenBackBy } = judged;
        const flow = flowInWords(leak?.flow ?? null);
        return (
          <Box key={test.id} sx={{ borderTop: `1px solid ${colours.thread}`, py: 0.75 }}>
            <Typography>
              <span aria-hidden>{MARK[shows.verdict] ?? '▲'} </span>
              <strong>{capital(shows.verdict)}.</strong> {capital(entryInWords(test))}
              {flow !== null && ` · ${flow} at 2 bar`} · <RecordedBy entry={test} />
            </Typography>
            {shows.verdict !== 'tight' && <Typography>{shows.reasons.map(capital).join(' ')}</Typography>}
            {stands && (
              <Typography sx={{ fontWeight: 700 }}>
                {takenBackBy === 'repair and retest'
                  ? 'This failure counts until the watch is repaired and passes a retest.'
                  : 'This failure counts until a test at this pressure or a higher one shows the watch tight.'}
              </Typography>
            )}
            {takenBack !== null && (
              <Typography>
                Settled by the {testInWords(takenBack)}, <RecordedBy entry={takenBack} />.
              </Typography>
            )}
            {test.payload.places.length > 0 && (
              <PlacesFigure places={test.payload.places} label="leak" size={90} />
            )}
            {test.payload.record?.repairs.map((line) => (
              <Typography key={line} variant="body2" color="text.secondary">
                {line}
              </Typography>
            ))}
            {test.payload.record !== null && (
              <Fold summary="Record, fit and residuals" sx={{ color: colours.ink, fontWeight: 400 }}>
                <Residuals judged={judged} />
              </Fold>
            )}
          </Box>
        );
      })}
      {state.facts.leakFindings.map((found) => (
        <Typography key={found.id} sx={{ borderTop: `1px solid ${colours.thread}`, py: 0.75 }}>
          {capital(entryInWords(found))} · <RecordedBy entry={found} />
        </Typography>
      ))}
    </Paper>
  );
}
