import { templateOf } from './template';

/** A field with every byte that could end it written in octal (fstab(5), exports(5)). */
const octal = (value: string): string =>
  [...new TextEncoder().encode(value)]
    .map((b) =>
      b <= 0x20 || b === 0x22 || b === 0x23 || b === 0x5c || b >= 0x7f
        ? `\\${b.toString(8).padStart(3, '0')}`
        : String.fromCharCode(b),
    )
    .join('');

/** A line of fstab(5): fields in which nothing ends a field or a line. */
export const fstabLine = templateOf({ format: 'fstab', quote: octal });
/** A line of exports(5). */
export const exportsLine = templateOf({ format: 'exports', quote: octal });
