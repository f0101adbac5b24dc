import { slotRecipe } from '../define';
import { dataListAnatomy } from '@chakra-ui/react/anatomy';

/** What a thing is, line by line. */
export const dataList = slotRecipe({
  className: 'zb-dataList',
  slots: dataListAnatomy.keys(),
  base: {
    root: {
      display: 'grid',
      gridTemplateColumns: 'auto 1fr',
      columnGap: '3',
      rowGap: '1',
      textStyle: 'body',
      margin: 0,
    },
    item: { display: 'contents' },
    itemLabel: { color: 'fg.muted' },
    itemValue: { margin: 0, minWidth: 0, overflowWrap: 'anywhere' },
  },
});
