import { chakra } from '@chakra-ui/react';

/** What becomes of a stretch of a drive, or what kind it is: told by a pattern, always with its word beside it. */
export type Pattern = 'code' | 'table' | 'part' | 'gap' | 'beyond' | 'erased' | 'new';

/** The fill of a shape. */
export const fillOf = (pattern: Pattern): string => (pattern === 'part' ? 'none' : `url(#zb-${pattern})`);

/** A colour of the theme within a drawing. */
export const colour = (token: string): string => `var(--zb-colors-${token})`;

/** The patterns, drawn once on a page; everything that is filled names one of them. */
export const Patterns = () => (
  <chakra.svg aria-hidden="true" position="absolute" css={{ width: 0, height: 0 }}>
    <defs>
      <pattern id="zb-code" width="5" height="5" patternUnits="userSpaceOnUse">
        <path d="M1 0V5" stroke={colour('fg')} strokeWidth="2" />
      </pattern>
      <pattern id="zb-table" width="5" height="5" patternUnits="userSpaceOnUse">
        <path d="M0 .5H5" stroke={colour('fg-muted')} strokeWidth="1" />
      </pattern>
      <pattern id="zb-gap" width="7" height="7" patternUnits="userSpaceOnUse">
        <circle cx="3.5" cy="3.5" r="1.1" fill={colour('rule-strong')} />
      </pattern>
      <pattern
        id="zb-beyond"
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <path d="M0 0V7" stroke={colour('stop')} strokeWidth="2.6" />
      </pattern>
      <pattern
        id="zb-erased"
        width="6"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <path d="M0 0V6M0 0H6" stroke={colour('fg')} strokeWidth="2.4" />
      </pattern>
      <pattern id="zb-new" width="7" height="7" patternUnits="userSpaceOnUse">
        <path d="M0 1H7" stroke={colour('work')} strokeWidth="1.6" />
      </pattern>
    </defs>
  </chakra.svg>
);
