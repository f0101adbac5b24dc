import { slotRecipe } from '../define';
import { stepsAnatomy } from '@chakra-ui/react/anatomy';

/** The route: twelve stops in a row. */
export const steps = slotRecipe({
  className: 'zb-steps',
  slots: stepsAnatomy.keys(),
  base: {
    root: { display: 'flex', width: '100%' },
    list: { display: 'flex', width: '100%', overflowX: 'auto' },
    item: {
      flex: '1 0 74px',
      borderInlineStart: '1px dashed',
      borderColor: 'rule.strong',
      _current: { bg: 'bg', boxShadow: 'inset 0 3px 0 {colors.fg}' },
    },
    trigger: {
      display: 'flex',
      flexDirection: 'column',
      alignItems: 'flex-start',
      gap: '1',
      width: '100%',
      padding: '2.5',
      bg: 'transparent',
      border: 0,
      cursor: 'pointer',
      fontFamily: 'body',
      textAlign: 'start',
    },
    indicator: { textStyle: 'small' },
    title: { textStyle: 'strong', whiteSpace: 'nowrap' },
    description: { textStyle: 'data', color: 'fg.muted' },
    separator: { display: 'none' },
  },
});
