import { defineStyle } from '@chakra-ui/react';

/** What all that is typed into or chosen from has in common. */
export const controlBase = defineStyle({
  width: '100%',
  minWidth: 0,
  appearance: 'none',
  bg: 'bg',
  color: 'fg',
  border: '1px solid',
  borderColor: 'rule.control',
  borderRadius: 'corner',
  paddingInline: '2.5',
  fontFamily: 'body',
  fontSize: 'body',
  lineHeight: 'body',
  focusVisibleRing: 'outside',
  focusRingColor: 'work',
  _placeholder: { color: 'fg.muted', opacity: 1 },
  _disabled: { opacity: 0.6, cursor: 'not-allowed' },
  _invalid: { borderColor: 'stop', borderWidth: '2px' },
});
