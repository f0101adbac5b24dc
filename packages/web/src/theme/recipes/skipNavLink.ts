import { recipe } from '../define';

/** Past the rail, for those who come by keys. */
export const skipNavLink = recipe({
  className: 'zb-skip-nav',
  base: {
    position: 'fixed',
    top: '-64px',
    insetInlineStart: '2',
    zIndex: 'skipLink',
    bg: 'bg',
    color: 'fg',
    border: '2px solid',
    borderColor: 'fg',
    padding: '2',
    _focusVisible: { top: '2' },
  },
});
