// The one theme: paper and ink, copper for what is live, and MUI's controls dressed in them.
import { createTheme, type Theme } from '@mui/material';

declare module '@mui/material/Button' {
  interface ButtonPropsVariantOverrides {
    plain: true;
    line: true;
    main: true;
  }
}

const paper = {
  light: { ground: '#f4f0e6', sheet: '#fffdf7', ink: '#1c212e', copper: '#9c4f1e' },
  dark: { ground: '#1b1d26', sheet: '#23252f', ink: '#ece7da', copper: '#e2935a' },
};

/** A button with an edge. */
const edged = {
  height: 30,
  minWidth: 0,
  padding: '4px 12px',
  border: '1px solid var(--ink)',
  borderRadius: 2,
  background: 'var(--sheet)',
  color: 'var(--ink)',
  font: 'inherit',
  fontWeight: 600,
  whiteSpace: 'nowrap',
  '&:hover': { background: 'var(--live)' },
  '&.Mui-disabled': { opacity: 0.5, color: 'var(--ink)' },
} as const;

/** A field on its own: ours, on the browser's input or select that MUI keeps. */
const FIELD = {
  boxSizing: 'border-box',
  height: 30,
  minWidth: 0,
  padding: '4px 8px',
  font: 'inherit',
  color: 'inherit',
  background: 'var(--sheet)',
  border: '1px solid var(--rule)',
  borderRadius: 2,
  '&.num, &.mono': { fontFamily: 'var(--mono)' },
} as const;

/** What stands in the middle of its button. */
const MIDDLE = {
  display: 'inline-flex',
  alignItems: 'center',
  justifyContent: 'center',
  verticalAlign: 'middle',
} as const;

/** Our theme, light or dark. */
export function themeOf(dark: boolean): Theme {
  const colours = dark ? paper.dark : paper.light;
  return createTheme({
    palette: {
      mode: dark ? 'dark' : 'light',
      primary: { main: colours.copper },
      background: { default: colours.ground, paper: colours.sheet },
      text: { primary: colours.ink },
    },
    typography: {
      fontFamily: '"Barlow Semi Condensed", sans-serif',
      fontSize: 13,
      body1: { fontSize: 13, lineHeight: 1.35 },
      button: { textTransform: 'none' },
    },
    shape: { borderRadius: 2 },
    // What can be pressed looks so at once.
    transitions: { create: () => 'none' },
    components: {
      MuiButtonBase: {
        defaultProps: { disableRipple: true },
        styleOverrides: {
          root: {
            // As it stands in a line of words; a button that is dressed says otherwise.
            display: 'inline-block',
            alignItems: 'initial',
            justifyContent: 'initial',
            verticalAlign: 'baseline',
            font: 'inherit',
            textAlign: 'left',
            '&:focus-visible': { outline: '2px solid var(--copper)', outlineOffset: 1 },
          },
        },
      },
      MuiPaper: {
        defaultProps: { elevation: 0 },
        styleOverrides: { root: { backgroundImage: 'none', boxShadow: 'none', border: '1px solid var(--rule)' } },
      },
      MuiButton: {
        defaultProps: { disableElevation: true, size: 'small' },
        styleOverrides: { root: MIDDLE },
        variants: [
          {
            props: { variant: 'plain' },
            style: {
              display: 'inline',
              verticalAlign: 'baseline',
              minWidth: 0,
              padding: '2px 4px',
              font: 'inherit',
              lineHeight: 'inherit',
              textAlign: 'inherit',
              color: 'inherit',
              borderRadius: 2,
              '&:hover': { textDecoration: 'underline', background: 'none' },
              '&.Mui-disabled': { color: 'var(--soft)', opacity: 0.75 },
            },
          },
          { props: { variant: 'line' }, style: edged },
          {
            props: { variant: 'main' },
            style: {
              ...edged,
              background: 'var(--copper)',
              borderColor: 'var(--copper)',
              color: dark ? '#1b1d26' : '#fff',
              '&.Mui-disabled': { opacity: 0.5, color: dark ? '#1b1d26' : '#fff' },
            },
          },
        ],
      },
      MuiIconButton: { styleOverrides: { root: MIDDLE } },
      MuiMenuItem: {
        styleOverrides: {
          root: {
            display: 'flex',
            alignItems: 'center',
            gap: 10,
            minHeight: 30,
            padding: '2px 12px',
            font: 'inherit',
            whiteSpace: 'normal',
            '&:hover, &.Mui-focusVisible': { background: 'var(--live)' },
          },
        },
      },
      MuiTab: {
        styleOverrides: {
          root: {
            display: 'inline-flex',
            alignItems: 'center',
            justifyContent: 'center',
            minHeight: 44,
            font: 'inherit',
            fontWeight: 600,
            color: 'var(--soft)',
            '&.Mui-selected': { color: 'var(--ink)' },
          },
        },
      },
      MuiListSubheader: {
        styleOverrides: {
          root: {
            font: 'inherit',
            fontSize: 12,
            fontWeight: 600,
            color: 'var(--soft)',
            background: 'var(--sheet)',
            padding: '6px 12px',
          },
        },
      },
      MuiSnackbarContent: {
        styleOverrides: {
          root: { font: 'inherit', color: 'var(--ground)', background: 'var(--ink)', padding: '2px 16px' },
          action: { '& .plain': { textDecoration: 'underline' } },
        },
      },
      MuiInputBase: {
        styleOverrides: {
          root: {
            // A field that has its own line takes all of it; one in a line of words stands in it.
            '&.fieldbox, &.fieldbox .field': { display: 'block', width: '100%' },
            '&.chipfield': { maxWidth: '100%' },
          },
          input: {
            '&.field': FIELD,
            '&.chip:not(select)': {
              boxSizing: 'border-box',
              cursor: 'text',
              maxWidth: '100%',
              minWidth: 48,
              outline: '2px solid var(--copper)',
            },
            '.chipfield &.chip': { height: 24, width: 'auto', minWidth: 0, outline: 'none' },
            '.chipfield &.chip:focus': { outline: '2px solid var(--copper)' },
          },
        },
      },
      MuiNativeSelect: {
        styleOverrides: {
          select: {
            '&.field': { ...FIELD, paddingRight: 26 },
            '&.chip': {
              boxSizing: 'border-box',
              height: 'auto',
              minWidth: 0,
              maxWidth: 190,
              paddingRight: 22,
              outline: 'none',
              cursor: 'pointer',
              fieldSizing: 'content',
              fontFamily: '"Barlow Semi Condensed", sans-serif',
              fontSize: 13,
            },
            '&.chip:focus-visible': { outline: '2px solid var(--copper)' },
          },
        },
      },
      MuiTextField: { defaultProps: { size: 'small' } },
    },
  });
}
