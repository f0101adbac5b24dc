import { slotRecipe } from '../define';
import { segmentGroupAnatomy } from '@chakra-ui/react/anatomy';
import { focusInside } from '../recipes/control';

/** A few ways to look at one thing, side by side. */
export const segmentGroup = slotRecipe({
  className: 'zb-segmentGroup',
  slots: segmentGroupAnatomy.keys(),
  base: {
    root: {
      display: 'inline-flex',
      position: 'relative',
      isolation: 'isolate',
      border: 'firm',
      borderRadius: 'corner',
      maxWidth: '100%',
      overflowX: 'auto',
    },
    item: {
      display: 'inline-flex',
      alignItems: 'center',
      minHeight: 'control',
      paddingInline: '3',
      cursor: 'pointer',
      position: 'relative',
      zIndex: 1,
      borderInlineStart: 'thin',
      _first: { borderInlineStart: 0 },
      _checked: { fontWeight: 'strong' },
      _disabled: { opacity: 0.5, cursor: 'not-allowed' },
      '&:has(input:focus-visible)': focusInside,
    },
    itemText: { whiteSpace: 'nowrap' },
    indicator: {
      position: 'absolute',
      zIndex: 0,
      width: 'var(--width)',
      height: 'var(--height)',
      left: 'var(--left)',
      top: 'var(--top)',
      bg: 'work.wash',
      boxShadow: 'inset 0 -3px 0 {colors.work}',
    },
  },
});
