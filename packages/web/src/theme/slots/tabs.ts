import { slotRecipe } from '../define';
import { tabsAnatomy } from '@chakra-ui/react/anatomy';
import { focusInside, focusOutline } from '../recipes/control';

/** Sides of one sheet. */
export const tabs = slotRecipe({
  className: 'zb-tabs',
  slots: tabsAnatomy.keys(),
  base: {
    root: { display: 'flex', flexDirection: 'column', gap: '3' },
    list: { display: 'flex', gap: '4', borderBottom: 'ink', overflowX: 'auto' },
    trigger: {
      appearance: 'none',
      bg: 'transparent',
      border: 0,
      borderBottom: '3px solid transparent',
      paddingBlock: '2',
      paddingInline: '0.5',
      fontFamily: 'body',
      fontSize: 'body',
      color: 'fg.muted',
      cursor: 'pointer',
      whiteSpace: 'nowrap',
      _selected: { color: 'fg', fontWeight: 'strong', borderBottomColor: 'work' },
      _focusVisible: focusInside,
    },
    content: {
      outline: 0,
      _focusVisible: focusOutline,
    },
  },
  variants: {
    variant: {
      line: {},
      // Names in a column at the side, as on the tabs of a card file; in a row where there is no room.
      upright: {
        root: { md: { flexDirection: 'row', gap: '6', alignItems: 'flex-start' } },
        list: {
          flexWrap: 'wrap',
          md: {
            flexDirection: 'column',
            flex: '0 0 150px',
            gap: 0,
            borderBottom: 0,
            borderInlineEnd: 'ink',
            overflowX: 'visible',
          },
        },
        trigger: {
          display: 'flex',
          flexDirection: 'column',
          alignItems: 'flex-start',
          textAlign: 'start',
          md: {
            borderBottom: 'thin',
            borderInlineStart: '3px solid transparent',
            paddingInline: '2',
            _selected: { borderBottomColor: 'rule', borderInlineStartColor: 'fg', bg: 'bg.margin' },
          },
        },
        content: { flex: 1, width: '100%' },
      },
    },
  },
  defaultVariants: { variant: 'line' },
});
