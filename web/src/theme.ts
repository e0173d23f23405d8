import {
  createTheme,
  Loader,
  Menu,
  Modal,
  Popover,
  type CSSVariablesResolver,
  type MantineColorsTuple,
} from '@mantine/core'

const verdigris: MantineColorsTuple = [
  '#EAF4F3',
  '#D5E6E4',
  '#A9CECA',
  '#7BB5B0',
  '#559F99',
  '#3E918B',
  '#2F6F6B',
  '#27605C',
  '#1D504D',
  '#0F3F3C',
]

/** What opens over the page keeps to the window: it turns over, moves along, and scrolls where it is too tall. */
const inTheWindow = { middlewares: { flip: true, shift: { padding: 8 }, size: { padding: 8 } } }

export const theme = createTheme({
  primaryColor: 'verdigris',
  primaryShade: 6,
  autoContrast: true,
  colors: { verdigris },
  fontFamily: "'Source Sans 3 Variable', sans-serif",
  headings: { fontFamily: "'Newsreader Variable', serif", fontWeight: '500' },
  defaultRadius: 2,
  fontSizes: { xs: '0.78rem', sm: '0.875rem', md: '0.95rem', lg: '1.1rem', xl: '1.3rem' },
  cursorType: 'pointer',
  components: {
    Modal: Modal.extend({ defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } }),
    Menu: Menu.extend({ defaultProps: inTheWindow }),
    Popover: Popover.extend({ defaultProps: inTheWindow }),
    Loader: Loader.extend({ defaultProps: { role: 'status' } }),
  },
})

/** The gallery's own wall, paper and ink stand in for Mantine's white and black. */
export const resolver: CSSVariablesResolver = () => ({
  variables: {},
  light: {
    '--mantine-color-body': '#FFFDF8',
    '--mantine-color-text': '#23262B',
    '--mantine-color-dimmed': '#5A5C5E',
    '--mantine-color-placeholder': '#6B6B68',
    '--mantine-color-default-border': '#CFC8B8',
    '--mantine-color-default': '#FFFDF8',
    '--mantine-color-error': '#9B2C1F',
  },
  dark: {
    '--mantine-color-body': '#24272B',
    '--mantine-color-text': '#ECE7DB',
    '--mantine-color-dimmed': '#B5B0A4',
    '--mantine-color-placeholder': '#A09B90',
    '--mantine-color-default-border': '#4A4D50',
    '--mantine-color-default': '#2B2F33',
    '--mantine-color-error': '#F0A08F',
  },
})
