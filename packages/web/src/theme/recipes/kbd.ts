import { recipe } from '../define';

/** A key of the keyboard. */
export const kbd = recipe({
  className: 'zb-kbd',
  base: {
    display: 'inline-block',
    minWidth: '20px',
    paddingInline: '1',
    border: 'firm',
    borderRadius: 'corner',
    bg: 'bg.margin',
    textStyle: 'data',
    fontSize: 'small',
    textAlign: 'center',
  },
});
