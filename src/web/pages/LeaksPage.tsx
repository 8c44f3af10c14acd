import { Box, Button, Stack, TableCell, Typography } from '@mui/material';
import { useState } from 'react';
import { ALL_YEARS, type LeakGroup } from '../../core/advice/leaks';
import { figure } from '../../core/craft/judgement';
import type { Share } from '../../core/craft/tightness';
import { useLeakReport } from '../api/resources';
import { FilterBox } from '../kit/FilterBox';
import { LampAnswer } from '../kit/Lamp';
import { Loading } from '../kit/Loading';
import { StageLayout } from '../kit/StageLayout';
import { VirtualTable } from '../kit/VirtualTable';

const percent = (share: number): string => `${figure(share * 100, 0)} %`;

/** A share and the ends 95 of 100 lie within, drawn on one scale. */
function ShareCell({ share }: { readonly share: Share }) {
  const { of, among, from, to } = share;
  if (among === 0) return <>–</>;
  return (
    <Box sx={{ minWidth: 120 }}>
      <Typography>
        {of} of {among}
      </Typography>
      <svg viewBox="0 0 100 8" width="110" height="9" aria-hidden>
        <line x1="0" y1="4" x2="100" y2="4" stroke="currentColor" strokeWidth="0.6" opacity="0.5" />
        <rect x={from * 100} y="2" width={(to - from) * 100} height="4" fill="currentColor" opacity="0.45" />
        <rect x={(of / among) * 100 - 1} y="0" width="2" height="8" fill="currentColor" />
      </svg>
      <Typography variant="body2">
        {percent(from)} to {percent(to)}
      </Typography>
    </Box>
  );
}

function Cells({ group }: { readonly group: LeakGroup }) {
  const { caseCode, year, leaked, seats, medianRingAgeYears, mended, renewal } = group;
  return (
    <>
      <TableCell component="th" scope="row" sx={{ fontWeight: year === ALL_YEARS ? 700 : 400 }}>
        {caseCode || 'not noted'}, {year === ALL_YEARS ? 'all years' : year}
      </TableCell>
      <TableCell>
        <ShareCell share={leaked} />
      </TableCell>
      <TableCell>{seats.map(({ seat, jobs }) => `${seat} ${jobs}`).join(', ') || '–'}</TableCell>
      <TableCell>{medianRingAgeYears === null ? '–' : `${figure(medianRingAgeYears, 1)} years`}</TableCell>
      <TableCell>{mended.among === 0 ? '–' : `${mended.of} of ${mended.among}`}</TableCell>
      <TableCell>{renewal}</TableCell>
    </>
  );
}

const HEADS = ['Case type', 'Leaked', 'Where', 'Ring age (median)', 'Repaired', 'With a new ring'];

/** What leaks at this counter, by case type and year: where, after how long, and what a renewal changed. */
export default function LeaksPage() {
  const report = useLeakReport();
  const [typed, setTyped] = useState('');
  const groups = report.data;
  if (groups === undefined) return <Loading what="the leak report" />;
  const wanted = typed.trim().toLowerCase();
  const shown = groups.filter(({ caseCode }) => caseCode.toLowerCase().includes(wanted));
  const all = groups.filter(({ year }) => year === ALL_YEARS);
  const count = (of: (group: LeakGroup) => number): number => all.reduce((sum, group) => sum + of(group), 0);
  const tested = count(({ leaked }) => leaked.among);
  return (
    <StageLayout
      mat={
        <>
          <Typography variant="h1">Leak report</Typography>
          {groups.length === 0 ? (
            <Typography>
              No test is recorded yet. Every watch that stage 7 shows tight or leaking counts here.
            </Typography>
          ) : (
            <>
              <Stack direction="row" spacing={1.5} sx={{ alignItems: 'center' }}>
                <FilterBox label="Search the case types" value={typed} onType={setTyped} />
                <Button href="/api/lists/leaks.csv">As CSV</Button>
              </Stack>
              <VirtualTable
                label="Leaks by case type and year"
                heads={HEADS}
                rows={shown}
                keyOf={({ caseCode, year }) => `${caseCode} ${year}`}
                sx={{ '& td, & th': { px: 0.75 } }}
                cells={(group) => <Cells group={group} />}
              />
            </>
          )}
        </>
      }
      lamp={
        <LampAnswer
          question="Watches tested"
          tone="open"
          answer={`${count(({ leaked }) => leaked.of)} of ${tested} leaked`}
          reasons={[
            'Each share is shown with its 95 % interval. With few watches the interval is wide.',
            'Each watch counts once per visit, if a test showed it tight or leaking.',
          ]}
        />
      }
    />
  );
}
