import { slotRecipe } from '../define';
import { collapsibleAnatomy } from '@chakra-ui/react/anatomy';

/** What can be folded away. */
export const collapsible = slotRecipe({
  className: 'zb-collapsible',
  slots: collapsibleAnatomy.keys(),
  base: {
    trigger: {
      display: 'inline-flex',
      alignItems: 'center',
      gap: '1.5',
      minHeight: 'target',
      bg: 'transparent',
      border: 0,
      padding: 0,
      color: 'work',
      cursor: 'pointer',
      fontFamily: 'body',
      fontSize: 'body',
      focusVisibleRing: 'outside',
      focusRingColor: 'work',
    },
    indicator: {
      transition: 'rotate {durations.quick}',
      _open: { rotate: '90deg' },
      _icon: { boxSize: '14px' },
    },
    content: { overflow: 'hidden' },
  },
  variants: {
    variant: {
      word: { trigger: { textAlign: 'start' }, content: { paddingTop: '1' } },
      // A line of words and a figure: that it opens is told by its dotted rule.
      line: {
        trigger: {
          width: '100%',
          justifyContent: 'space-between',
          alignItems: 'baseline',
          gap: '2.5',
          color: 'inherit',
          fontSize: 'inherit',
          textAlign: 'start',
          paddingBlock: '2px',
          '& > span:first-of-type': {
            textDecoration: 'underline dotted',
            textDecorationColor: '{colors.rule.strong}',
            textUnderlineOffset: '3px',
          },
        },
      },
    },
  },
  defaultVariants: { variant: 'word' },
});
