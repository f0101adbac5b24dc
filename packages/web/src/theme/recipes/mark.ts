import { recipe } from '../define';

/** What stands before the word of a mark. */
const sign = {
  content: '""',
  display: 'inline-block',
  flexShrink: 0,
  // The line stands by its words, not by the shape beside them.
  alignSelf: 'center',
  boxSize: '11px',
  forcedColorAdjust: 'none',
} as const;
const shape = (before: object) => ({ _before: { ...sign, ...before } });

const line = { height: 0, borderTop: '2.5px solid' };
/** How a verdict looks: a shape, and what becomes of its word. The shapes differ without their colours. */
export const verdictLooks = {
  yes: shape({ bg: 'proven', borderRadius: 'round' }),
  no: { color: 'fg.muted', fontWeight: 480, ...shape({ ...line, borderColor: 'fg.muted' }) },
  ask: shape({ border: '2px dotted', borderColor: 'check', borderRadius: 'round' }),
  change: shape({
    border: '2px solid',
    borderColor: 'check',
    backgroundImage: 'linear-gradient(90deg, {colors.check} 50%, transparent 50%)',
  }),
  stop: { color: 'stop', ...shape({ ...line, borderColor: 'stop' }) },
} as const;
export const verdictBase = {
  display: 'inline-flex',
  alignItems: 'baseline',
  gap: '1.5',
  fontWeight: 620,
} as const;

/** A verdict: a shape and a word together; neither stands alone. */
export const verdictMark = recipe({
  className: 'zb-verdict',
  base: verdictBase,
  variants: { kind: verdictLooks },
  defaultVariants: { kind: 'ask' },
});

/** How grave a hazard is: a filled square, an open one, a line. */
export const hazardMark = recipe({
  className: 'zb-hazard',
  base: {
    display: 'inline-flex',
    alignItems: 'baseline',
    gap: '5px',
    fontSize: 'small',
    fontWeight: 'heavy',
    whiteSpace: 'nowrap',
  },
  variants: {
    grade: {
      stop: { color: 'stop', ...shape({ boxSize: '9px', bg: 'stop' }) },
      check: { color: 'check', ...shape({ boxSize: '9px', border: '2px solid', borderColor: 'check' }) },
      note: {
        color: 'fg.muted',
        ...shape({ boxSize: '9px', borderBottom: '2px solid', borderColor: 'fg.muted' }),
      },
    },
  },
  defaultVariants: { grade: 'note' },
});

/** A stamp on the sheet: signed, proven, refused. */
export const stamp = recipe({
  className: 'zb-stamp',
  base: {
    display: 'inline-block',
    border: '2px solid',
    borderColor: 'currentColor',
    fontWeight: 'heavy',
    fontSize: '12.5px',
    paddingInline: '2',
    paddingBlock: '2px',
    letterSpacing: '.03em',
  },
  variants: { kind: { good: { color: 'proven' }, stop: { color: 'stop' }, check: { color: 'check' } } },
  defaultVariants: { kind: 'good' },
});
