import { slotRecipe } from '../define';
import { numberInputAnatomy } from '@chakra-ui/react/anatomy';
import { controlBase } from '../recipes/control';

const trigger = {
  flex: 1,
  display: 'flex',
  alignItems: 'center',
  justifyContent: 'center',
  cursor: 'pointer',
  bg: 'transparent',
  border: 0,
  color: 'fg.muted',
  _icon: { boxSize: '12px' },
  _hover: { bg: 'work.wash' },
  _disabled: { opacity: 0.4 },
};

/** A number with steps up and down. */
export const numberInput = slotRecipe({
  className: 'zb-numberInput',
  slots: numberInputAnatomy.keys(),
  base: {
    root: { position: 'relative', width: '100%' },
    input: { ...controlBase, height: 'control', textStyle: 'data', paddingInlineEnd: '8', textAlign: 'end' },
    control: {
      position: 'absolute',
      insetBlock: '1px',
      insetInlineEnd: '1px',
      width: 'target',
      display: 'flex',
      flexDirection: 'column',
      borderInlineStart: 'thin',
    },
    incrementTrigger: trigger,
    decrementTrigger: { ...trigger, borderTop: 'thin' },
  },
});
