import { Box } from '@mui/material';
import { colours } from './theme';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly onType: (text: string) => void;
}

/** What a long list is narrowed down by. */
export function FilterBox({ label, value, onType }: Props) {
  return (
    <Box
      component="input"
      type="search"
      aria-label={label}
      placeholder={label}
      value={value}
      autoComplete="off"
      spellCheck={false}
      onChange={(event: React.ChangeEvent<HTMLInputElement>) => onType(event.target.value)}
      sx={{
        width: '100%',
        minHeight: 44,
        px: 1.25,
        font: 'inherit',
        color: 'text.primary',
        bgcolor: colours.paper,
        border: `1px solid ${colours.edge}`,
        borderRadius: 1,
      }}
    />
  );
}
