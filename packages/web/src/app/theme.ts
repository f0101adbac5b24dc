import { createSystem, defaultConfig, defineConfig } from '@chakra-ui/react';

const ref = (name: string): { value: string } => ({ value: `var(--${name})` });

/** The component library in our clothes: paper, ink, squared corners, thin rules, no shadows, one blue. */
const config = defineConfig({
  preflight: false,
  theme: {
    tokens: {
      fonts: { body: ref('text'), heading: ref('text'), mono: ref('mono') },
      radii: { l1: { value: '2px' }, l2: { value: '2px' }, l3: { value: '2px' } },
    },
    semanticTokens: {
      colors: {
        bg: { DEFAULT: ref('sheet'), panel: ref('sheet'), muted: ref('margin'), subtle: ref('margin') },
        fg: { DEFAULT: ref('ink'), muted: ref('ink2'), subtle: ref('ink2') },
        border: { DEFAULT: ref('rule2'), muted: ref('rule') },
      },
      shadows: { lg: { value: 'none' }, md: { value: 'none' }, sm: { value: 'none' }, xs: { value: 'none' } },
    },
  },
});

export const system = createSystem(defaultConfig, config);
