import ErrorOutlineIcon from '@mui/icons-material/ReportGmailerrorred';
import WarningAmberIcon from '@mui/icons-material/WarningAmber';
import { Box, Stack, Typography } from '@mui/material';
import { type ReactNode, useState } from 'react';
import type { WorkingLine } from '../../core/craft/judgement';
import { Fold } from './Fold';
import { colours } from './theme';

/** How an answer stands: fine, wants care, no. Shown by word and shape as well as by colour. */
export type LampTone = 'good' | 'care' | 'no' | 'open';

const STANDING: Readonly<Record<LampTone, { readonly line: string; readonly mark: string }>> = {
  good: { line: colours.verdigris, mark: '●' },
  care: { line: colours.amber, mark: '▲' },
  no: { line: colours.cinnabar, mark: '■' },
  open: { line: colours.smoke, mark: '○' },
};

/** The line that opens what is there on demand. */
const FOLD_LINE = { cursor: 'pointer', minHeight: 30, fontWeight: 700, color: colours.ink } as const;

interface AnswerProps {
  readonly question: string;
  readonly answer: ReactNode;
  readonly tone: LampTone;
  readonly reasons?: readonly string[];
  /** How many of the reasons stand at once; the others are behind *Why*. All of them where it is left out. */
  readonly shown?: number;
  /** The arithmetic it rests on. */
  readonly working?: readonly WorkingLine[];
  /** Settled, or deciding nothing just now: one line, which opens. */
  readonly folded?: boolean;
  readonly children?: ReactNode;
}

/** One thing the program has worked out: the answer large, the reasons under it; or both in a line that opens. */
export function LampAnswer({ folded = false, ...answer }: AnswerProps) {
  return folded ? <AnswerLine {...answer} /> : <WholeAnswer {...answer} />;
}

function Mark({ tone }: Pick<AnswerProps, 'tone'>) {
  const { line, mark } = STANDING[tone];
  return (
    <Box
      component="span"
      aria-hidden
      sx={{ color: tone === 'care' ? colours.soot : line, fontSize: '0.9rem', mr: 0.75 }}
    >
      {mark}
    </Box>
  );
}

function Reasons({ reasons }: { readonly reasons: readonly string[] }) {
  return reasons.map((reason) => (
    <Typography key={reason} sx={{ mt: 0.5 }}>
      {reason}
    </Typography>
  ));
}

const sideOf = (tone: LampTone) => ({ borderLeft: `5px solid ${STANDING[tone].line}`, pl: 1.5 });

function WholeAnswer({
  question,
  answer,
  tone,
  reasons = [],
  shown = reasons.length,
  working = [],
  children,
}: Omit<AnswerProps, 'folded'>) {
  const rest = reasons.slice(shown);
  return (
    <Box sx={{ ...sideOf(tone), py: 0.25 }}>
      <Typography variant="body2" color="text.secondary">
        {question}
      </Typography>
      <Typography component="div" sx={{ fontSize: '1.35rem', fontWeight: 700, lineHeight: 1.25 }}>
        <Mark tone={tone} />
        {answer}
      </Typography>
      <Reasons reasons={reasons.slice(0, shown)} />
      {children}
      {rest.length === 0 ? <Working lines={working} /> : <Why reasons={rest} working={working} />}
    </Box>
  );
}

/** The reasons that do not stand at once, and the arithmetic, which is drawn when somebody asks for it. */
function Why({
  reasons,
  working,
}: {
  readonly reasons: readonly string[];
  readonly working: readonly WorkingLine[];
}) {
  const [open, setOpen] = useState(false);
  return (
    <Box
      component="details"
      onToggle={(event) => setOpen(event.currentTarget.open)}
      sx={{ '& > summary': FOLD_LINE }}
    >
      <summary>Why</summary>
      <Reasons reasons={reasons} />
      {open && <WorkingLines lines={working} />}
    </Box>
  );
}

function AnswerLine({
  question,
  answer,
  tone,
  reasons = [],
  working = [],
  children,
}: Omit<AnswerProps, 'folded' | 'shown'>) {
  return (
    <Box
      component="details"
      sx={{
        ...sideOf(tone),
        '& > summary': { cursor: 'pointer', py: 0.25, '@media (pointer: coarse)': { minHeight: 44 } },
      }}
    >
      <summary>
        <Mark tone={tone} />
        <Typography component="span" variant="body2" color="text.secondary">
          {question}:
        </Typography>{' '}
        <strong>{answer}</strong>
      </summary>
      <Reasons reasons={reasons} />
      {children}
      <Working lines={working} />
    </Box>
  );
}

/** One hazard in one line, with its reason, where the hand is about to move. */
export function Caution({
  children,
  grave = false,
}: {
  readonly children: ReactNode;
  readonly grave?: boolean;
}) {
  const Icon = grave ? ErrorOutlineIcon : WarningAmberIcon;
  return (
    <Stack
      direction="row"
      spacing={1}
      role="note"
      sx={{
        bgcolor: grave ? 'transparent' : colours.amber,
        color: grave ? colours.cinnabar : colours.onAmber,
        border: `1.5px solid ${grave ? colours.cinnabar : colours.soot}`,
        borderRadius: 1,
        px: 1.25,
        py: 0.75,
      }}
    >
      <Icon aria-hidden fontSize="small" sx={{ mt: '2px' }} />
      <Typography>{children}</Typography>
    </Stack>
  );
}

/** The arithmetic behind an answer, on demand. */
export function Working({ lines }: { readonly lines: readonly WorkingLine[] }) {
  if (lines.length === 0) return null;
  return (
    <Fold summary="Show the working" sx={FOLD_LINE}>
      <WorkingLines lines={lines} />
    </Fold>
  );
}

function WorkingLines({ lines }: { readonly lines: readonly WorkingLine[] }) {
  return (
    <Stack spacing={1} sx={{ mt: 0.5 }}>
      {lines.map((line, index) => (
        <Box key={`${line.what}-${index}`} sx={{ borderTop: `1px solid ${colours.thread}`, pt: 0.75 }}>
          <Typography sx={{ fontWeight: 700 }}>{line.what}</Typography>
          <Typography variant="body2">{line.rule}</Typography>
          <Typography variant="mark" component="p" sx={{ fontSize: '0.95rem', fontWeight: 400 }}>
            {line.figures}
          </Typography>
          {line.source && (
            <Typography variant="body2" color="text.secondary">
              Source: {line.source}
            </Typography>
          )}
        </Box>
      ))}
    </Stack>
  );
}
