import { quoted } from './shell';
import { oneLine, templateOf } from './template';

/** A line of a configuration of GRUB: every value is one word in single quotes, in one line (GRUB manual, “Quoting”). */
export const grub = templateOf({ format: 'grub', quote: (value) => quoted(oneLine(value)) });
