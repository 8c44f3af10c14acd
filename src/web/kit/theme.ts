import { createTheme } from '@mui/material/styles';

/** The colours of the counter: warm paper and ink. Beeswax is only ever a ground under soot text. */
export const colours = {
  tallow: '#FBF6EA',
  paper: '#FFFDF6',
  soot: '#22252B',
  smoke: '#565149',
  thread: '#D8CDB4',
  beeswax: '#E2A33B',
  verdigris: '#26695F',
  cinnabar: '#A83A28',
  ink: '#2C4A6B',
} as const;

export const MONO = '"Atkinson Hyperlegible Mono", ui-monospace, monospace';

declare module '@mui/material/styles' {
  interface TypographyVariants {
    mark: React.CSSProperties;
  }
  interface TypographyVariantsOptions {
    mark?: React.CSSProperties;
  }
}
declare module '@mui/material/Typography' {
  interface TypographyPropsVariantOverrides {
    mark: true;
  }
}

export const theme = createTheme({
  palette: {
    mode: 'light',
    primary: { main: colours.ink, contrastText: colours.paper },
    secondary: { main: colours.beeswax, contrastText: colours.soot },
    success: { main: colours.verdigris, contrastText: colours.paper },
    error: { main: colours.cinnabar, contrastText: colours.paper },
    warning: { main: colours.beeswax, contrastText: colours.soot },
    info: { main: colours.ink, contrastText: colours.paper },
    background: { default: colours.tallow, paper: colours.paper },
    text: { primary: colours.soot, secondary: colours.smoke },
    divider: colours.thread,
  },
  typography: {
    fontFamily: '"Atkinson Hyperlegible", system-ui, sans-serif',
    fontSize: 15,
    body1: { lineHeight: 1.4 },
    h1: { fontSize: '1.6rem', fontWeight: 700 },
    h2: { fontSize: '1.2rem', fontWeight: 700 },
    h3: { fontSize: '1.02rem', fontWeight: 700 },
    button: { textTransform: 'none', fontWeight: 700 },
    mark: { fontFamily: MONO, fontSize: '1.25rem', fontWeight: 700 },
  },
  shape: { borderRadius: 6 },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        body: { minHeight: '100dvh' },
        a: { color: colours.ink },
        ':focus-visible': { outline: `3px solid ${colours.ink}`, outlineOffset: 2 },
        '@media (prefers-reduced-motion: reduce)': {
          '*': { transition: 'none !important', animation: 'none !important' },
        },
      },
    },
    // Gaps, not margins: what wraps stays in line.
    MuiStack: { defaultProps: { useFlexGap: true } },
    // Keys work again the moment a dialog is gone.
    MuiDialog: { defaultProps: { transitionDuration: 0 } },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { disableElevation: true },
      styleOverrides: {
        root: {
          minHeight: 44,
          '&.MuiButton-contained.MuiButton-colorSecondary': { border: `1.5px solid ${colours.soot}` },
        },
      },
    },
    MuiIconButton: { styleOverrides: { root: { minWidth: 44, minHeight: 44 } } },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          minHeight: 44,
          color: colours.soot,
          borderColor: colours.smoke,
          textTransform: 'none',
          '&.Mui-selected, &.Mui-selected:hover': {
            backgroundColor: colours.beeswax,
            color: colours.soot,
            fontWeight: 700,
          },
        },
      },
    },
    MuiFormControlLabel: { styleOverrides: { root: { minHeight: 44, marginRight: 20 } } },
    MuiRadio: { defaultProps: { color: 'primary' } },
    MuiFormHelperText: { styleOverrides: { root: { fontSize: '0.9rem', lineHeight: 1.35 } } },
    MuiTextField: { defaultProps: { size: 'small' } },
    MuiOutlinedInput: {
      styleOverrides: {
        root: { minHeight: 48, backgroundColor: colours.paper },
        notchedOutline: { borderColor: '#8A8272' },
      },
    },
    MuiPaper: {
      defaultProps: { elevation: 0 },
      styleOverrides: { root: { border: `1px solid ${colours.thread}` } },
    },
    MuiTooltip: { styleOverrides: { tooltip: { backgroundColor: colours.soot, fontSize: '0.9rem' } } },
  },
});
