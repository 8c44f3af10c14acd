import { type Components, createTheme, type CSSObject, type Theme } from '@mui/material/styles';
import { useMemo, useSyncExternalStore } from 'react';
import { CHOICE, CHOICE_KEYS } from './keys/choices';

/**
 * The colours of the counter, by what they mean: paper and ink; amber for caution alone, cinnabar for stop, verdigris for
 * what is good. What is chosen is told by outline and weight.
 */
const DAY = {
  tallow: '#FBF6EA',
  paper: '#FFFDF6',
  /** The ground of the lamp. */
  glow: '#FFF8E3',
  soot: '#22252B',
  smoke: '#565149',
  thread: '#D8CDB4',
  /** What is still to come, and the edge of a field. */
  ash: '#B9AC8E',
  edge: '#8A8272',
  /** Metal in a drawing: cells, jaws, parts. */
  tin: '#D9D2C0',
  amber: '#E2A33B',
  /** Text on amber, by day and by night. */
  onAmber: '#22252B',
  verdigris: '#26695F',
  cinnabar: '#A83A28',
  ink: '#2C4A6B',
} as const;

type Palette = Readonly<Record<keyof typeof DAY, string>>;

const NIGHT: Palette = {
  tallow: '#17181B',
  paper: '#202227',
  glow: '#26251F',
  soot: '#EFE9DB',
  smoke: '#B8B1A3',
  thread: '#43413C',
  ash: '#7C7566',
  edge: '#8F8878',
  tin: '#4C4F57',
  amber: '#E2A33B',
  onAmber: '#22252B',
  verdigris: '#6FC2B2',
  cinnabar: '#F2907C',
  ink: '#A3C3E6',
};

const NAMES = Object.keys(DAY) as (keyof Palette)[];
const variable = (name: string): string => `--wl-${name}`;

/** Each colour as styles and drawings name it: what it is by day or by night the browser knows. */
export const colours = Object.fromEntries(NAMES.map((name) => [name, `var(${variable(name)})`])) as Palette;

const DARK = '(prefers-color-scheme: dark)';

/** The colours as figures, for what cannot read a variable: charts. Follows the system. */
export function usePalette(): Palette {
  const isNight = useSyncExternalStore(
    (listener) => {
      const query = matchMedia(DARK);
      query.addEventListener('change', listener);
      return () => query.removeEventListener('change', listener);
    },
    () => matchMedia(DARK).matches,
  );
  return isNight ? NIGHT : DAY;
}

export const MONO = '"Atkinson Hyperlegible Mono", ui-monospace, monospace';

/** The mat of a stage, and the keys shown at what is wanted next on it. */
export const BENCH_MAT = 'wl-mat';
export const NEXT_KEY = 'wl-next-key';
/** What is pressed and stands on paper all the same: the lines of what is recorded. */
export const PRINTED = 'wl-printed';
export const ANSWER_KEY = 'wl-answer-key';

/** A key as it looks where it is shown. */
export const KEY_CAP = {
  display: 'inline-block',
  minWidth: 22,
  padding: '0 4px',
  border: '1.5px solid currentColor',
  borderRadius: '3px',
  fontFamily: MONO,
  fontSize: '0.85rem',
  lineHeight: 1.35,
  fontWeight: 700,
  textAlign: 'center',
} as const;

/** A form in which keys are text just now. */
const IN_TEXT = ':has(input:not([type="radio"], [type="checkbox"]):focus, textarea:focus, select:focus)';
const WANTED = `:has([data-wanted="true"])`;
const WANTED_NEXT = `.${BENCH_MAT} > ${WANTED}:not(.${BENCH_MAT} > ${WANTED} ~ *)`;

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

const baseOf = (its: Palette): CSSObject => ({
  ':root': {
    colorScheme: its === NIGHT ? 'dark' : 'light',
    ...Object.fromEntries(NAMES.map((name) => [variable(name), its[name]])),
  },
  // What the keyboard comes to is not hidden by the bar at the foot.
  html: { scrollPaddingBottom: 72 },
  body: { minHeight: '100dvh' },
  a: { color: its.ink },
  // The keys of choices, counted as they are picked; they are no part of what a choice is called.
  '@counter-style wl-choice-keys': {
    system: 'fixed',
    symbols: [...CHOICE_KEYS].map((key) => `"${key}"`).join(' '),
  },
  form: { counterReset: 'wl-choice' },
  [`.${CHOICE}`]: { counterIncrement: 'wl-choice', position: 'relative' },
  '@media (pointer: fine)': {
    // Over the corner of its choice: nothing moves under a pointer as the focus comes.
    [`form:focus-within:not(${IN_TEXT}) .${CHOICE}::after`]: {
      content: 'counter(wl-choice, wl-choice-keys) / ""',
      ...KEY_CAP,
      position: 'absolute',
      left: 28,
      top: -4,
      minWidth: 17,
      padding: '0 2px',
      fontSize: '0.75rem',
      lineHeight: 1.2,
      borderWidth: 1,
      backgroundColor: its.paper,
      pointerEvents: 'none',
    },
    // A key picks in the form that is being filled in, and nothing in the lamp.
    [`#mat:has(form:focus-within:not(${IN_TEXT}) .${CHOICE}) .${ANSWER_KEY}`]: {
      visibility: 'hidden',
    },
  },
  // What is wanted next is outlined, and says its keys.
  [`${WANTED_NEXT}.MuiPaper-root, ${WANTED_NEXT} > .MuiPaper-root`]: { borderColor: its.soot },
  [`${WANTED_NEXT} .${NEXT_KEY}`]: { display: 'inline-flex' },
  ':focus-visible': { outline: `3px solid ${its.ink}`, outlineOffset: 2 },
  // On paper stands what is known, by day: nothing to press, and nobody else's jobs.
  '@media print': {
    ':root': {
      colorScheme: 'light',
      ...Object.fromEntries(NAMES.map((name) => [variable(name), DAY[name]])),
    },
    [`header, nav, form, button:not(.${PRINTED}), [role="status"], .MuiButton-root, .MuiAutocomplete-root, .${PRINTED} svg`]:
      { display: 'none !important' },
    'body, main, .MuiPaper-root, .MuiTypography-root': {
      color: `${DAY.soot} !important`,
      background: 'none !important',
    },
    section: { breakInside: 'avoid' },
    // A card that held only what is pressed.
    '.MuiPaper-root:not(:has(p, h1, h2, h3, dl, table, svg))': { display: 'none' },
  },
  '@media (prefers-reduced-motion: reduce)': {
    '*': { transition: 'none !important', animation: 'none !important' },
  },
});

const componentsOf = (its: Palette): Components<Theme> => ({
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
        whiteSpace: 'nowrap',
        maxWidth: '100%',
      },
    },
  },
  MuiIconButton: { styleOverrides: { root: { minWidth: 44, minHeight: 44 } } },
  MuiToggleButton: {
    styleOverrides: {
      root: {
        minHeight: 44,
        color: its.soot,
        borderColor: its.smoke,
        textTransform: 'none',
        '&.Mui-selected, &.Mui-selected:hover': {
          backgroundColor: its.paper,
          color: its.soot,
          fontWeight: 700,
          boxShadow: `inset 0 0 0 2px ${its.soot}`,
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
      root: { minHeight: 48, backgroundColor: its.paper },
      notchedOutline: { borderColor: its.edge },
    },
  },
  MuiPaper: {
    defaultProps: { elevation: 0 },
    styleOverrides: { root: { border: `1px solid ${its.thread}` } },
  },
  MuiTooltip: { styleOverrides: { tooltip: { backgroundColor: its.soot, fontSize: '0.9rem' } } },
});

const themeOf = (its: Palette): Theme =>
  createTheme({
    palette: {
      mode: its === NIGHT ? 'dark' : 'light',
      primary: { main: its.ink, contrastText: its.paper },
      secondary: { main: its.soot, contrastText: its.paper },
      success: { main: its.verdigris, contrastText: its.paper },
      error: { main: its.cinnabar, contrastText: its.paper },
      warning: { main: its.amber, contrastText: its.onAmber },
      info: { main: its.ink, contrastText: its.paper },
      background: { default: its.tallow, paper: its.paper },
      text: { primary: its.soot, secondary: its.smoke },
      divider: its.thread,
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
    components: { MuiCssBaseline: { styleOverrides: baseOf(its) }, ...componentsOf(its) },
  });

/** The theme of day or night, as the system has it. */
export function useTheme(): Theme {
  const palette = usePalette();
  return useMemo(() => themeOf(palette), [palette]);
}
