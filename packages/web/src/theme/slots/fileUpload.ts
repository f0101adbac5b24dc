import { slotRecipe } from '../define';
import { fileUploadAnatomy } from '@chakra-ui/react/anatomy';
import { focusOutline } from '../recipes/control';

/** A place that takes files. */
export const fileUpload = slotRecipe({
  className: 'zb-fileUpload',
  slots: fileUploadAnatomy.keys(),
  base: {
    root: { display: 'flex', flexDirection: 'column', gap: '2', width: '100%' },
    label: { textStyle: 'label' },
    dropzone: {
      display: 'flex',
      flexWrap: 'wrap',
      gap: '3',
      alignItems: 'center',
      padding: '4',
      border: '1px dashed',
      borderColor: 'rule.control',
      borderRadius: 'corner',
      _dragging: { bg: 'work.wash', borderColor: 'work', borderStyle: 'solid' },
      _focusVisible: focusOutline,
    },
    dropzoneContent: { display: 'flex', flexDirection: 'column', gap: '1' },
    itemGroup: {
      display: 'flex',
      flexDirection: 'column',
      gap: '1',
      listStyle: 'none',
      padding: 0,
      margin: 0,
    },
    item: { display: 'flex', gap: '3', alignItems: 'baseline', borderBottom: 'thin', paddingBlock: '1' },
    itemName: { overflowWrap: 'anywhere', flex: 1 },
    itemSizeText: { textStyle: 'data', color: 'fg.muted' },
  },
});
