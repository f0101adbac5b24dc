import { defineSemanticTokens } from '@chakra-ui/react';

/** A colour by light and dark; paper is always light, and where the system forces its colours they are taken. */
const both = (light: string, dark: string, forced?: string) => ({
  value: { _light: light, _dark: dark, _print: light, ...(forced ? { _forced: forced } : {}) },
});

const line = (of: string) => ({ value: { _light: of, _dark: of } });

/** Colours by what they are for. Stop, check and proven never stand without a mark and a word. */
export const semanticTokens = defineSemanticTokens({
  // Named with the colours, so that a dark sheet on a light page has dark lines.
  borders: {
    thin: line('1px solid {colors.rule}'),
    firm: line('1px solid {colors.rule.strong}'),
    ink: line('1px solid {colors.fg}'),
  },
  colors: {
    bg: {
      DEFAULT: both('#fcfbf7', '#1d2124', 'Canvas'),
      ground: both('#e4e0d6', '#131618', 'Canvas'),
      margin: both('#f3f0e8', '#181b1e', 'Canvas'),
      veil: both('rgba(20, 22, 24, .45)', 'rgba(0, 0, 0, .6)'),
    },
    fg: {
      DEFAULT: both('#1c2023', '#ece9e1', 'CanvasText'),
      muted: both('#555b5e', '#a5a9a8', 'CanvasText'),
    },
    rule: {
      DEFAULT: both('#d3cdbf', '#343a3d', 'CanvasText'),
      strong: both('#a9a291', '#5a6164', 'CanvasText'),
      /** Edges of controls: 3 to 1 against the sheet (WCAG 2.2, 1.4.11). */
      control: both('#8b8474', '#767d80', 'CanvasText'),
    },
    work: {
      DEFAULT: both('#1d4b86', '#8bb4ea', 'LinkText'),
      contrast: both('#ffffff', '#10202f', 'Canvas'),
      wash: both('#e2eaf4', '#20324a', 'Canvas'),
    },
    stop: { DEFAULT: both('#b0351a', '#f0866b', 'CanvasText'), wash: both('#f9e5dc', '#43231b', 'Canvas') },
    check: { DEFAULT: both('#805a00', '#e0b44c', 'CanvasText'), wash: both('#f7ecd0', '#3a3016', 'Canvas') },
    proven: { DEFAULT: both('#38662c', '#94c284', 'CanvasText'), wash: both('#e3eddc', '#22331e', 'Canvas') },
  },
});
