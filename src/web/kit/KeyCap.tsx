import { Box } from '@mui/material';

/** The key that does it, shown where it is done. */
export function KeyCap({ children }: { readonly children: string }) {
  return (
    <Box
      component="kbd"
      aria-hidden
      className="wl-keycap"
      sx={{
        display: 'inline-block',
        minWidth: 22,
        px: 0.5,
        border: '1.5px solid currentColor',
        borderRadius: 0.5,
        fontSize: '0.85rem',
        lineHeight: 1.35,
        fontWeight: 700,
        textAlign: 'center',
        '@media (pointer: coarse)': { display: 'none' },
      }}
    >
      {children}
    </Box>
  );
}
