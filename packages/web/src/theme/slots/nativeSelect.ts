import { slotRecipe } from '../define';
import { nativeSelectAnatomy } from '@chakra-ui/react/anatomy';
import { controlBase } from '../recipes/control';

/** A choice out of a few words, by the device’s own list. */
export const nativeSelect = slotRecipe({
  className: 'zb-nativeSelect',
  slots: nativeSelectAnatomy.keys(),
  base: {
    root: { position: 'relative', display: 'flex', width: '100%' },
    field: { ...controlBase, height: 'control', paddingInlineEnd: '8' },
    indicator: {
      position: 'absolute',
      insetInlineEnd: '2',
      top: '50%',
      transform: 'translateY(-50%)',
      pointerEvents: 'none',
      color: 'fg.muted',
      _icon: { boxSize: '16px' },
    },
  },
});
