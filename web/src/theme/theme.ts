/** The theme, set in full: achromatic surrounds, flat, large type, square corners. */
import { createTheme, type Theme } from '@mui/material/styles';

export type Surround = 'light' | 'dim';

/** Greys with a = b = 0; L* is that of CIELAB. The one warm tone is for harm. */
const SURROUNDS = {
  light: {
    ground: '#d3d3d3', // L* 84
    raised: '#e2e2e2', // L* 89.6
    sunk: '#c4c4c4', // L* 79
    line: '#767676',
    text: '#141414',
    soft: '#3d3d3d',
    harm: '#6f3009',
  },
  dim: {
    ground: '#434343', // L* 28.3
    raised: '#4f4f4f', // L* 33.5
    sunk: '#363636', // L* 22.5
    line: '#a3a3a3',
    text: '#f4f4f4',
    soft: '#d6d6d6',
    harm: '#f3bd93',
  },
} as const;

type Greys = (typeof SURROUNDS)[Surround];

declare module '@mui/material/styles' {
  interface Theme {
    greys: Greys;
  }
  interface ThemeOptions {
    greys?: Greys;
  }
}

export const FONT = '"Source Sans 3 Variable", sans-serif';

export function makeTheme(surround: Surround): Theme {
  const g = SURROUNDS[surround];
  const edge = `1px solid ${g.line}`;
  return createTheme({
    greys: g,
    palette: {
      mode: surround === 'light' ? 'light' : 'dark',
      primary: { main: g.text, contrastText: g.ground },
      secondary: { main: g.soft, contrastText: g.ground },
      error: { main: g.harm },
      warning: { main: g.harm },
      info: { main: g.soft },
      success: { main: g.text },
      text: { primary: g.text, secondary: g.soft },
      background: { default: g.ground, paper: g.raised },
      divider: g.line,
    },
    shape: { borderRadius: 0 },
    spacing: 8,
    typography: {
      fontFamily: FONT,
      fontSize: 16,
      htmlFontSize: 16,
      h1: { fontSize: '2rem', fontWeight: 700, lineHeight: 1.15 },
      h2: { fontSize: '1.4rem', fontWeight: 400, lineHeight: 1.3 },
      h3: { fontSize: '1.25rem', fontWeight: 700, lineHeight: 1.3 },
      body1: { fontSize: '1.0625rem' },
      body2: { fontSize: '1rem' },
      button: { fontSize: '1.0625rem', textTransform: 'none', fontWeight: 500 },
      caption: { fontSize: '0.9375rem' },
    },
    components: {
      MuiCssBaseline: {
        styleOverrides: {
          body: { fontVariantNumeric: 'tabular-nums', overflowX: 'hidden' },
          ':focus-visible': { outline: `3px solid ${g.text}`, outlineOffset: 2 },
          // A link in a text is hit by a thumb too, and its lines stay where they are.
          '@media (max-width: 600px)': {
            'main a:not(.MuiButtonBase-root)': {
              display: 'inline-block',
              minWidth: 44,
              paddingBlock: 10,
              marginBlock: -10,
            },
            'main summary': { minHeight: 44, alignContent: 'center' },
          },
          // A sheet is printed on white paper, without what belongs to the screen.
          '@media print': {
            body: { background: '#fff !important', color: '#000 !important' },
            '.no-print, nav, section[aria-label="Drying rail"]': { display: 'none !important' },
          },
          '@media (prefers-reduced-motion: reduce)': {
            '*, *::before, *::after': {
              animation: 'none !important',
              transition: 'none !important',
            },
          },
        },
      },
      MuiPaper: {
        defaultProps: { elevation: 0 },
        styleOverrides: { root: { backgroundImage: 'none' } },
      },
      MuiButtonBase: {
        defaultProps: { disableRipple: true },
        // Stated here too: what makes buttons takes the outline of the page away.
        styleOverrides: {
          root: { '&:focus-visible': { outline: `3px solid ${g.text}`, outlineOffset: 2 } },
        },
      },
      MuiButton: {
        defaultProps: { disableElevation: true, variant: 'outlined' },
        styleOverrides: {
          root: {
            minHeight: 44,
            padding: '6px 18px',
            borderColor: g.text,
            color: g.text,
            background: g.raised,
          },
          contained: {
            background: g.text,
            color: g.ground,
            '&:hover': { background: g.soft },
            '&.Mui-disabled': { background: g.sunk, color: g.soft },
          },
          text: { background: 'transparent' },
        },
      },
      MuiOutlinedInput: {
        styleOverrides: {
          root: {
            background: g.raised,
            minHeight: 44,
            '&.Mui-focused .MuiOutlinedInput-notchedOutline': {
              borderWidth: 3,
              borderColor: g.text,
            },
          },
          notchedOutline: { borderColor: g.line, '& legend': { fontSize: '0.9rem' } },
        },
      },
      MuiInputLabel: {
        styleOverrides: {
          root: { color: g.soft, fontSize: '1.2rem', '&.Mui-focused': { color: g.text } },
        },
      },
      MuiFormHelperText: {
        styleOverrides: {
          root: {
            fontSize: '0.9375rem',
            marginLeft: 0,
            color: g.soft,
            '&.Mui-error': { color: g.harm, fontWeight: 600 },
          },
        },
      },
      MuiDialog: {
        styleOverrides: { paper: { border: `2px solid ${g.text}`, background: g.ground } },
      },
      MuiMenu: { styleOverrides: { paper: { border: edge } } },
      MuiMenuItem: { styleOverrides: { root: { minHeight: 44 } } },
      MuiSwitch: {
        styleOverrides: {
          switchBase: { color: g.raised, '&.Mui-checked': { color: g.text } },
          track: {
            background: g.line,
            opacity: 1,
            '.Mui-checked.Mui-checked + &': { background: g.soft, opacity: 1 },
          },
        },
      },
    },
  });
}
