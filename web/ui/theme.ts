import { createSystem, defaultConfig, defineConfig } from '@chakra-ui/react';

const mode = (paper: string, dusk: string) => ({ value: { base: paper, _dark: dusk } });

/** Paper by day, dusk by night: names say what a colour is for. */
const config = defineConfig({
  globalCss: {
    'html, body': { bg: 'paper', color: 'ink', fontSize: '14px', height: '100%', overscrollBehavior: 'none' },
    '*:focus-visible': { outline: '2px solid', outlineColor: 'sky', outlineOffset: '1px' },
    'svg:focus': { outline: 'none' },
    'svg:focus-visible': { outline: '2px solid var(--chakra-colors-sky)' },
    ':root': { '--ink-share': '8%' },
    '.dark': { '--ink-share': '34%' },
    '::selection': { bg: 'marigold/40' },
    // A finger needs more than a mouse (WCAG 2.2, 2.5.8 asks for 24 pixels at least).
    'button, select, input:not([type="checkbox"]), [role="spinbutton"], [role="menuitem"]': {
      '@media (pointer: coarse)': { minHeight: '40px' },
    },
    'button, select, [role="switch"]': { '@media (pointer: coarse)': { minWidth: '40px !important' } },
    // With reduced motion the interface does not animate; the loop itself plays on request.
    '*, ::before, ::after': {
      '@media (prefers-reduced-motion: reduce)': {
        animationDuration: '0.01ms !important',
        animationIterationCount: '1 !important',
        transitionDuration: '0.01ms !important',
        scrollBehavior: 'auto !important',
      },
    },
  },
  theme: {
    tokens: {
      fonts: {
        body: { value: `'Figtree Variable', system-ui, sans-serif` },
        heading: { value: `'Bricolage Grotesque Variable', 'Figtree Variable', sans-serif` },
        mono: { value: `'JetBrains Mono Variable', ui-monospace, monospace` },
      },
      radii: { card: { value: '10px' }, field: { value: '6px' } },
    },
    semanticTokens: {
      colors: {
        paper: mode('#F1EDE4', '#17191D'),
        panel: mode('#FBFAF6', '#1F2227'),
        raised: mode('#FFFFFF', '#282C32'),
        field: mode('#F1EEE7', '#33373F'),
        fill: mode('#E4DCCB', '#474C56'),
        band: mode('#E8E1D3', '#1B1D22'),
        line: mode('#DDD7CB', '#3A3E46'),
        lineStrong: mode('#BDB6A7', '#565B65'),
        ink: mode('#24262B', '#EEEAE2'),
        muted: mode('#67645F', '#ABA79F'),
        inverse: mode('#FBFAF6', '#17191D'),
        poppy: mode('#D9483B', '#E8695D'),
        poppyText: mode('#A8261B', '#FF9C92'),
        poppyWash: mode('#FBE4E0', '#46231F'),
        marigold: mode('#E8A317', '#F0B63F'),
        marigoldText: mode('#855A00', '#F5C766'),
        marigoldWash: mode('#FBEFD2', '#40331A'),
        leaf: mode('#4C8C4A', '#69AE66'),
        leafText: mode('#2B6630', '#98D695'),
        leafWash: mode('#E2F0DF', '#20381F'),
        sky: mode('#3A86B7', '#5CA6D6'),
        plum: mode('#7D4F9E', '#A87BC8'),
      },
      shadows: {
        card: mode('0 1px 2px rgba(36,38,43,.06)', '0 1px 2px rgba(0,0,0,.4)'),
        float: mode('0 6px 24px rgba(36,38,43,.16), 0 1px 3px rgba(36,38,43,.12)', '0 8px 28px rgba(0,0,0,.55)'),
      },
    },
  },
});

export const system = createSystem(defaultConfig, config);
