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
});
