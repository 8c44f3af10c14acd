import { Box, Button, Typography } from '@mui/material';
import { useEffect, useRef } from 'react';
import { KeyCap } from './KeyCap';
import { useKey } from './keys/KeysProvider';

export interface AnswerChoice {
  readonly label: string;
  /** What it would mean, beside it. */
  readonly means?: string;
  readonly onPick: () => void;
}

const KEYS = ['q', 'w', 'e', 'r', 't', 'y'] as const;

interface Props {
  /** What is asked, for those who do not see where the answers stand. */
  readonly of: string;
  readonly choices: readonly AnswerChoice[];
  readonly disabled?: boolean;
}

/** The answers to a question where it is asked: each a button and a key. */
export function Answers({ of, choices, disabled = false }: Props) {
  return (
    <Box
      role="group"
      aria-label={of}
      sx={{
        display: 'grid',
        gridTemplateColumns: 'auto minmax(0, 1fr)',
        columnGap: 1,
        rowGap: 0.5,
        mt: 0.75,
      }}
    >
      {choices.map((choice, index) => (
        <Answer
          key={choice.label}
          choice={choice}
          keyName={disabled ? null : (KEYS[index] ?? null)}
          disabled={disabled}
        />
      ))}
    </Box>
  );
}

function Answer({
  choice: { label, means, onPick },
  keyName,
  disabled,
}: {
  readonly choice: AnswerChoice;
  readonly keyName: string | null;
  readonly disabled: boolean;
}) {
  return (
    <>
      <Button
        variant="outlined"
        disabled={disabled}
        onClick={onPick}
        sx={{
          justifyContent: 'flex-start',
          whiteSpace: 'nowrap',
          px: 1,
          gap: 1,
          gridColumn: means === undefined ? '1 / -1' : undefined,
          justifySelf: 'start',
        }}
      >
        {keyName !== null && <KeyCap>{keyName}</KeyCap>}
        {label}
      </Button>
      {means !== undefined && (
        <Typography variant="body2" sx={{ alignSelf: 'center' }}>
          {means}
        </Typography>
      )}
      {keyName !== null && <AnswerKey name={keyName} label={label} onPick={onPick} />}
    </>
  );
}

function AnswerKey({
  name,
  label,
  onPick,
}: {
  readonly name: string;
  readonly label: string;
  readonly onPick: () => void;
}) {
  const latest = useRef(onPick);
  useEffect(() => {
    latest.current = onPick;
  });
  useKey(name, label, () => latest.current());
  return null;
}
