import { createSystem, defaultBaseConfig, defineConfig, defineRecipe } from '@chakra-ui/react';

/** Pixels of a browser’s own text, where nobody made it larger: by it everything grows that is read. */
const BROWSER = 16;

/** Text sizes: nothing below 14 px, because it is read at arm's length in daylight. */
const SIZES = { xs: 14, sm: 15, md: 16, lg: 19, xl: 24, '2xl': 31 };

/** Steps of white space, in units of 4 px. */
const SPACES = [0, 0.5, 1, 1.5, 2, 2.5, 3, 4, 5, 6, 8];

const pair = (light: string, dark: string) => ({ value: { _light: light, _dark: dark } });

const FACE = "'Sofia Sans Semi Condensed Variable', 'Arial Narrow', sans-serif";

const button = defineRecipe({
  className: 'zl-button',
  base: {
    display: 'inline-flex',
    alignItems: 'center',
    justifyContent: 'center',
    gap: '2',
    minHeight: '44px',
    minWidth: '44px',
    paddingX: '4',
    fontFamily: 'body',
    fontSize: 'md',
    fontWeight: '600',
    whiteSpace: 'nowrap',
    cursor: 'pointer',
    border: '1px solid',
    borderColor: 'ink',
    background: 'transparent',
    color: 'ink',
    _hover: { background: 'wash' },
    _disabled: { opacity: 0.45, cursor: 'not-allowed' },
    _focusVisible: { outline: '3px solid', outlineColor: 'brass', outlineOffset: '2px' },
  },
  variants: {
    variant: {
      outline: {},
      solid: {
        background: 'ink',
        color: 'paper',
        _hover: { background: 'brassDeep', borderColor: 'brassDeep' },
      },
      plain: { borderColor: 'transparent', textDecoration: 'underline', textUnderlineOffset: '4px' },
    },
  },
  defaultVariants: { variant: 'outline' },
});

const input = defineRecipe({
  className: 'zl-input',
  base: {
    width: '100%',
    minHeight: '44px',
    paddingX: '2',
    fontFamily: 'mono',
    fontSize: 'md',
    color: 'ink',
    background: 'raised',
    border: '0',
    borderBottom: '2px solid',
    borderColor: 'hairline',
    borderRadius: '0',
    _focusVisible: { outline: '3px solid', outlineColor: 'brass', outlineOffset: '0' },
    _invalid: { borderColor: 'tight' },
    _placeholder: { color: 'faded', opacity: 1 },
  },
});

/** Warm paper and graphite, hairlines for boxes, old brass for what is chosen; the dark scheme turns paper and ink. */
const config = defineConfig({
  cssVarsPrefix: 'zl',
  theme: {
    breakpoints: { md: `${720 / BROWSER}em`, lg: `${1100 / BROWSER}em` },
    tokens: {
      spacing: Object.fromEntries(SPACES.map((step) => [String(step), { value: `${step * 4}px` }])),
      fonts: {
        body: { value: FACE },
        heading: { value: FACE },
        mono: { value: "'JetBrains Mono Variable', 'DejaVu Sans Mono', monospace" },
      },
      fontSizes: Object.fromEntries(
        Object.entries(SIZES).map(([key, px]) => [key, { value: `${px / BROWSER}rem` }]),
      ),
    },
    semanticTokens: {
      colors: {
        paper: pair('#f4eee1', '#21211f'),
        raised: pair('#fbf7ee', '#2b2b28'),
        wash: pair('#e9e1cf', '#34332f'),
        ink: pair('#2c2a26', '#efe7d6'),
        faded: pair('#625c50', '#b3ab9a'),
        hairline: pair('#aea48e', '#6a6558'),
        brass: pair('#7c5c12', '#d9b15f'),
        brassDeep: pair('#5d4409', '#f0cf86'),
        tight: pair('#99291a', '#f08f7c'),
        loose: pair('#1f567a', '#86c0e6'),
        settled: pair('#2c2a26', '#efe7d6'),
      },
    },
    recipes: { button, input },
  },
  globalCss: {
    '*, *::before, *::after': { boxSizing: 'border-box' },
    'html, body, #root': { height: '100%' },
    body: {
      margin: 0,
      background: 'paper',
      color: 'ink',
      fontFamily: 'body',
      fontSize: 'md',
      lineHeight: '1.35',
      fontVariantNumeric: 'tabular-nums',
    },
    'a, button, input, select, textarea, summary': { touchAction: 'manipulation' },
    'a:focus-visible, select:focus-visible, summary:focus-visible, textarea:focus-visible': {
      outline: '3px solid',
      outlineColor: 'brass',
      outlineOffset: '2px',
    },
    'h1, h2, h3, p, ul, ol, dl, dd, fieldset, legend': { margin: 0, padding: 0 },
    'ul, ol': { listStyle: 'none' },
    fieldset: { border: 0 },
    table: { borderCollapse: 'collapse', width: '100%' },
    'th, td': { textAlign: 'left', padding: '0' },
  },
});

export const system = createSystem(defaultBaseConfig, config);
