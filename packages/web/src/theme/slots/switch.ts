import { slotRecipe } from '../define';
import { switchAnatomy } from '@chakra-ui/react/anatomy';
import { focusOutline, labelled } from '../recipes/control';

/** Something that is on or off at once. */
export const switchRecipe = slotRecipe({
  className: 'zb-switch',
  slots: switchAnatomy.keys(),
  base: {
    root: { ...labelled, alignItems: 'center' },
    label: { textStyle: 'body' },
    control: {
      width: '42px',
      flexShrink: 0,
      height: 'target',
      padding: '2px',
      display: 'inline-flex',
      border: '1px solid',
      borderColor: 'rule.control',
      borderRadius: 'corner',
      bg: 'bg.margin',
      _checked: { bg: 'work', borderColor: 'work' },
      _focusVisible: focusOutline,
    },
    thumb: {
      boxSize: '18px',
      bg: 'fg.muted',
      transition: 'translate {durations.quick}',
      _checked: { translate: '18px 0', bg: 'work.contrast' },
    },
    indicator: { display: 'none' },
  },
});
