import ErrorOutlineIcon from '@mui/icons-material/ReportGmailerrorred';
import WarningAmberIcon from '@mui/icons-material/WarningAmber';
import { Box, Stack, Typography } from '@mui/material';
import type { ReactNode } from 'react';
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

interface AnswerProps {
  readonly question: string;
  readonly answer: ReactNode;
  readonly tone: LampTone;
  readonly reasons?: readonly string[];
  readonly children?: ReactNode;
}

/** One thing the program has worked out: the answer large, the reasons under it. */
export function LampAnswer({ question, answer, tone, reasons = [], children }: AnswerProps) {
  const { line, mark } = STANDING[tone];
  return (
    <Box sx={{ borderLeft: `5px solid ${line}`, pl: 1.5, py: 0.25 }}>
      <Typography variant="body2" color="text.secondary">
        {question}
      </Typography>
      <Typography component="div" sx={{ fontSize: '1.35rem', fontWeight: 700, lineHeight: 1.25 }}>
        <Box
          component="span"
          aria-hidden
          sx={{ color: tone === 'care' ? colours.soot : line, fontSize: '0.9rem', mr: 0.75 }}
        >
          {mark}
        </Box>
        {answer}
      </Typography>
      {reasons.map((reason) => (
        <Typography key={reason} sx={{ mt: 0.5 }}>
          {reason}
        </Typography>
      ))}
      {children}
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
    <Fold summary="Show the working" sx={{ color: colours.ink }}>
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
    </Fold>
  );
}
