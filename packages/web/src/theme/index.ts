import { createSystem, defaultBaseConfig, defineConfig } from '@chakra-ui/react';
import { button } from './recipes/button';
import { input } from './recipes/input';
import { kbd } from './recipes/kbd';
import { link } from './recipes/link';
import { hazardMark, stamp, verdictMark } from './recipes/mark';
import { skeleton } from './recipes/skeleton';
import { skipNavLink } from './recipes/skipNavLink';
import { textarea } from './recipes/textarea';
import { globalCss } from './globalCss';
import { layerStyles } from './layerStyles';
import { semanticTokens } from './semanticTokens';
import { alert } from './slots/alert';
import { checkbox } from './slots/checkbox';
import { collapsible } from './slots/collapsible';
import { combobox } from './slots/combobox';
import { dataList } from './slots/dataList';
import { dialog } from './slots/dialog';
import { drawer } from './slots/drawer';
import { emptyState } from './slots/emptyState';
import { field } from './slots/field';
import { fileUpload } from './slots/fileUpload';
import { list } from './slots/list';
import { menu } from './slots/menu';
import { nativeSelect } from './slots/nativeSelect';
import { numberInput } from './slots/numberInput';
import { popover } from './slots/popover';
import { progress } from './slots/progress';
import { radioCard } from './slots/radioCard';
import { radioGroup } from './slots/radioGroup';
import { segmentGroup } from './slots/segmentGroup';
import { slider } from './slots/slider';
import { stat } from './slots/stat';
import { switchRecipe } from './slots/switch';
import { table } from './slots/table';
import { tabs } from './slots/tabs';
import { toast } from './slots/toast';
import { tooltip } from './slots/tooltip';
import { textStyles } from './textStyles';
import { tokens } from './tokens';

/** The component library over its bare base, in our clothes: paper and ink, squared corners, thin rules, no shadows, one blue. */
export const config = defineConfig({
  cssVarsPrefix: 'zb',
  preflight: true,
  strictTokens: true,
  conditions: { forced: '@media (forced-colors: active)' },
  globalCss,
  theme: {
    breakpoints: { sm: '480px', md: '768px', lg: '1024px', xl: '1280px', wide: '1600px' },
    tokens,
    semanticTokens,
    textStyles,
    layerStyles,
    recipes: { button, hazardMark, input, kbd, link, skeleton, skipNavLink, stamp, textarea, verdictMark },
    slotRecipes: {
      alert,
      checkbox,
      collapsible,
      combobox,
      dataList,
      dialog,
      drawer,
      emptyState,
      field,
      fileUpload,
      list,
      menu,
      nativeSelect,
      numberInput,
      popover,
      progress,
      radioCard,
      radioGroup,
      segmentGroup,
      slider,
      stat,
      switch: switchRecipe,
      table,
      tabs,
      toast,
      tooltip,
    },
  },
});

export const system = createSystem(defaultBaseConfig, config);
export default system;
