import { slotRecipe } from '../define';
import { sliderAnatomy } from '@chakra-ui/react/anatomy';
import { focusOutline } from '../recipes/control';

/** A value on a ruled line. */
export const slider = slotRecipe({
  className: 'zb-slider',
  slots: sliderAnatomy.keys(),
  base: {
    root: {
      display: 'flex',
      flexDirection: 'column',
      gap: '1',
      width: '100%',
      textStyle: 'body',
      touchAction: 'none',
    },
    label: { textStyle: 'label' },
    control: { display: 'inline-flex', alignItems: 'center', position: 'relative', height: 'control' },
    track: { height: '2px', flex: 1, bg: 'rule.strong', overflow: 'hidden' },
    range: { bg: 'work', height: 'inherit' },
    thumb: {
      boxSize: 'target',
      bg: 'bg',
      border: '2px solid',
      borderColor: 'work',
      borderRadius: 'corner',
      display: 'flex',
      outline: 0,
      _focusVisible: focusOutline,
    },
    valueText: { textStyle: 'data' },
    markerLabel: { textStyle: 'small' },
  },
});
