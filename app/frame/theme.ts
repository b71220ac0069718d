import { createTheme } from '@mui/material/styles';

const text = 'Barlow, sans-serif';
const condensed = '"Barlow Condensed", sans-serif';
export const FIGURES = '"JetBrains Mono", monospace';

const day = {
  primary: { main: '#b8430a', contrastText: '#fffdf7' },
  secondary: { main: '#1f4d85', contrastText: '#fffdf7' },
  error: { main: '#9c2b1c' },
  warning: { main: '#b8430a' },
  success: { main: '#2f6b3c' },
  background: { default: '#f1ece1', paper: '#faf6ec' },
  text: { primary: '#2a2825', secondary: '#5d574e' },
  divider: '#cfc5b1',
};
const night = {
  primary: { main: '#ff9558', dark: '#ffab7d', contrastText: '#241f17' },
  secondary: { main: '#8fb3dd', contrastText: '#1b1e21' },
  error: { main: '#ff9c8b' },
  warning: { main: '#ff9558' },
  success: { main: '#8ccf9a' },
  background: { default: '#222529', paper: '#2b2f34' },
  text: { primary: '#ece6da', secondary: '#b9b2a5' },
  divider: '#474d54',
};

/**
 * The look of forms and buttons: sheet-metal corners, chalk fields, condensed labels, big enough
 * for gloves.
 */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: '[data-bench="%s"]' },
  colorSchemes: { light: { palette: day }, dark: { palette: night } },
  shape: { borderRadius: 4 },
  typography: {
    fontFamily: text,
    h1: { fontFamily: condensed, fontWeight: 600, fontSize: '2.1rem', lineHeight: 1.1 },
    h2: { fontFamily: condensed, fontWeight: 600, fontSize: '1.45rem', lineHeight: 1.15 },
    h3: { fontFamily: condensed, fontWeight: 600, fontSize: '1.15rem', letterSpacing: '0.02em' },
    button: {
      fontFamily: condensed,
      fontWeight: 600,
      fontSize: '1.08rem',
      textTransform: 'none',
      letterSpacing: '0.02em',
    },
    body2: { fontSize: '0.95rem' },
    caption: { fontSize: '0.85rem' },
  },
  components: {
    MuiButton: {
      defaultProps: { disableElevation: true },
      styleOverrides: {
        root: {
          minHeight: 44,
          paddingInline: 16,
          borderWidth: 1.5,
          '&:focus-visible': { outlineOffset: -4, outlineColor: 'currentColor' },
        },
        contained: {
          clipPath:
            'polygon(0 0, calc(100% - 9px) 0, 100% 9px, 100% 100%, 9px 100%, 0 calc(100% - 9px))',
        },
        outlined: {
          backgroundColor: 'var(--chalk)',
          borderColor: 'var(--rule)',
          color: 'var(--ink)',
        },
      },
    },
    MuiIconButton: { styleOverrides: { root: { width: 44, height: 44, color: 'inherit' } } },
    MuiOutlinedInput: {
      styleOverrides: {
        root: {
          backgroundColor: 'var(--chalk)',
          minHeight: 44,
          '&.Mui-focused .MuiOutlinedInput-notchedOutline': { borderColor: 'var(--torch)' },
        },
        notchedOutline: {
          borderColor: 'var(--rule)',
          borderWidth: 1.5,
          top: 0,
          '& legend': { display: 'none' },
        },
        input: { paddingBlock: 9 },
        multiline: { padding: '9px 14px', '& textarea': { padding: 0 } },
      },
    },
    MuiInputLabel: {
      defaultProps: { shrink: true },
      styleOverrides: {
        root: {
          position: 'static',
          transform: 'none',
          fontFamily: condensed,
          fontSize: '1rem',
          fontWeight: 500,
          marginBottom: 2,
          maxWidth: 'none',
          whiteSpace: 'normal',
          color: 'var(--pencil)',
        },
      },
    },
    MuiFormHelperText: { styleOverrides: { root: { marginInline: 2, fontSize: '0.85rem' } } },
    MuiTextField: { defaultProps: { fullWidth: true } },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          minHeight: 44,
          paddingInline: 12,
          fontSize: '1rem',
          color: 'var(--ink)',
          borderColor: 'var(--rule)',
          backgroundColor: 'var(--chalk)',
          '&.Mui-selected, &.Mui-selected:hover': {
            backgroundColor: 'var(--ink)',
            color: 'var(--panel)',
          },
        },
      },
    },
    MuiTableCell: {
      styleOverrides: {
        root: {
          borderColor: 'var(--rule)',
          paddingBlock: 6,
          paddingInline: 8,
          fontSize: '0.95rem',
        },
        head: { fontFamily: condensed, fontWeight: 600, color: 'var(--pencil)' },
      },
    },
    MuiTooltip: {
      defaultProps: { arrow: true },
      styleOverrides: { tooltip: { fontSize: '0.9rem', backgroundColor: '#2a2825' } },
    },
    MuiPaper: { styleOverrides: { root: { backgroundImage: 'none' } } },
    MuiMenuItem: { styleOverrides: { root: { minHeight: 44 } } },
  },
});
