import { Box } from '@mui/material';
import { KEY_CAP } from './theme';

/** The key that does it, shown where it is done. */
export function KeyCap({ children, className }: { readonly children: string; readonly className?: string }) {
  return (
    <Box
      component="kbd"
      aria-hidden
      className={className}
      sx={{ ...KEY_CAP, '@media (pointer: coarse)': { display: 'none' } }}
    >
      {children}
    </Box>
  );
}
