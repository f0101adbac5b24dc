import { templateOf } from './template';

/** A name in double quotes with every byte in hexadecimal that could end it or is not printable ASCII (libfdisk, fputs_quoted and unhexmangle_string). */
const quoted = (name: string): string =>
  `"${[...new TextEncoder().encode(name)]
    .map((b) =>
      b < 0x20 || b > 0x7e || b === 0x22 || b === 0x24 || b === 0x5c || b === 0x60
        ? `\\x${b.toString(16).padStart(2, '0')}`
        : String.fromCharCode(b),
    )
    .join('')}"`;

/** A line of a script of sfdisk(8), “Named-fields format”: a number stands as it is, a text in quotes. */
export const sfdisk = templateOf({
  format: 'sfdisk',
  quote: (value) => (/^[\w.-]+$/.test(value) ? value : quoted(value)),
  between: ', ',
});
