import { Box, Typography } from '@mui/material';
import { Link } from 'react-router';
import type { StageProgress, StageStatus } from '../../core/logbook';
import { STAGE_WORDS, type StageId } from '../../core/craft/policy';
import { colours } from '../kit/theme';

const WORDS: Readonly<Record<StageStatus, string>> = {
  done: 'done',
  current: 'to do now',
  coming: 'to come',
  'not needed': 'not asked for',
  skipped: 'skipped',
};

interface Props {
  readonly jobId: string;
  readonly progress: readonly StageProgress[];
  readonly open: StageId;
}

function Thread({ status }: { readonly status: StageStatus }) {
  const common = { height: 14, width: '100%', display: 'block' } as const;
  return (
    <Box component="svg" viewBox="0 0 100 14" preserveAspectRatio="none" aria-hidden sx={common}>
      {status === 'done' && <rect x="0" y="4" width="100" height="6" fill={colours.soot} />}
      {status === 'current' && (
        <>
          <rect x="0" y="1.5" width="100" height="11" fill={colours.soot} />
          <rect x="0" y="3.5" width="100" height="7" fill={colours.paper} />
        </>
      )}
      {status === 'coming' && <rect x="0" y="4" width="100" height="6" fill={colours.ash} />}
      {status === 'not needed' && <rect x="0" y="6.5" width="100" height="1.5" fill={colours.edge} />}
      {status === 'skipped' && (
        <>
          <rect x="0" y="4" width="30" height="6" fill={colours.cinnabar} />
          <rect x="70" y="4" width="30" height="6" fill={colours.cinnabar} />
        </>
      )}
    </Box>
  );
}

function Flame() {
  return (
    <Box
      component="svg"
      viewBox="0 0 16 22"
      aria-hidden
      sx={{ width: 14, height: 20, position: 'absolute', right: -7, top: -10, zIndex: 1 }}
    >
      <path
        d="M8 1c6 7 6 13 0 20-6-7-6-13 0-20z"
        fill={colours.paper}
        stroke={colours.soot}
        strokeWidth="1.5"
      />
    </Box>
  );
}

/** The job's progress as a candle wick: burnt, lit, to come, thin where the service does not ask, a gap where skipped. */
export function Wick({ jobId, progress, open }: Props) {
  return (
    <Box
      component="nav"
      aria-label="Stages of the job"
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'repeat(3, 1fr)', sm: 'repeat(9, minmax(0, 1fr))' },
        pt: 1.25,
        rowGap: 1,
      }}
    >
      {progress.map(({ stage, status, reason }, index) => (
        <Box
          key={stage}
          component={Link}
          to={`/jobs/${jobId}/${stage}`}
          aria-current={stage === open ? 'step' : undefined}
          aria-label={`${index + 1} ${STAGE_WORDS[stage]}, ${WORDS[status]}${reason ? `: ${reason}` : ''}`}
          title={reason ? `Skipped: ${reason}` : undefined}
          sx={{
            textDecoration: 'none',
            color: 'text.primary',
            minHeight: 44,
            position: 'relative',
            display: 'block',
          }}
        >
          <Box sx={{ position: 'relative' }}>
            <Thread status={status} />
            {status === 'current' && <Flame />}
          </Box>
          <Typography
            component="span"
            sx={{
              display: 'block',
              fontSize: '0.84rem',
              lineHeight: 1.15,
              mt: 0.5,
              pr: 0.75,
              textDecoration: stage === open ? 'underline' : 'none',
              textDecorationThickness: '2px',
              textUnderlineOffset: '4px',
            }}
          >
            {index + 1} {STAGE_WORDS[stage]}
            {status === 'skipped' ? ' (skipped)' : ''}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
