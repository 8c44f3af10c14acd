import { Box, Button, Stack, Typography } from '@mui/material';
import { KeyCap } from './KeyCap';
import { useKey } from './keys/KeysProvider';
import { ANSWER_KEY } from './theme';

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
  /** Whether its keys work: of several such questions on a page those of one. */
  readonly keyed?: boolean;
  /** Whether it is wanted, so that the focus comes to its first answer. */
  readonly wanted?: boolean;
  /** Whether the focus comes to the question as a whole: to none of its answers, as none is likelier than it looks. */
  readonly asked?: boolean;
  /** Beside each other, where none says what it would mean. */
  readonly inRow?: boolean;
}

/** The answers to a question where it is asked: each a button and a key. */
export function Answers({
  of,
  choices,
  disabled = false,
  keyed = true,
  wanted = false,
  asked = false,
  inRow = false,
}: Props) {
  return (
    <Box
      role="group"
      aria-label={of}
      {...(asked ? { tabIndex: -1, 'data-wanted': true } : {})}
      sx={{
        display: 'flex',
        flexDirection: inRow ? 'row' : 'column',
        flexWrap: inRow ? 'wrap' : 'nowrap',
        alignItems: 'flex-start',
        gap: inRow ? 1 : 0.5,
        mt: 0.75,
      }}
    >
      {choices.map((choice, index) => (
        <Answer
          key={choice.label}
          choice={choice}
          keyName={disabled || !keyed ? null : (KEYS[index] ?? null)}
          disabled={disabled}
          wanted={wanted && index === 0}
        />
      ))}
    </Box>
  );
}

function Answer({
  choice: { label, means, onPick },
  keyName,
  disabled,
  wanted,
}: {
  readonly choice: AnswerChoice;
  readonly keyName: string | null;
  readonly disabled: boolean;
  readonly wanted: boolean;
}) {
  const button = (
    <Button
      variant="outlined"
      disabled={disabled}
      data-wanted={wanted}
      onClick={onPick}
      sx={{
        justifyContent: 'flex-start',
        whiteSpace: 'nowrap',
        px: 1,
        gap: 1,
      }}
    >
      {keyName !== null && <KeyCap className={ANSWER_KEY}>{keyName}</KeyCap>}
      {label}
    </Button>
  );
  return (
    <>
      {means === undefined ? (
        button
      ) : (
        // What it would mean stands beside it where a few words go on a line, else under it.
        <Stack direction="row" sx={{ flexWrap: 'wrap', alignItems: 'center', columnGap: 1 }}>
          {button}
          <Typography variant="body2" sx={{ flex: '1 1 120px' }}>
            {means}
          </Typography>
        </Stack>
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
  useKey(name, label, onPick);
  return null;
}
