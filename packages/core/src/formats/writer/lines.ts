import { oneLine, templateOf, UnwritableError, type Template, type Written } from './template';

/** Formats of one setting a line that know no quoting, or none that every reader of them knows. */
export type LineFormat =
  | 'dnsmasq'
  | 'dhcpd.conf'
  | 'hosts'
  | 'interfaces'
  | 'unit'
  | 'keyfile'
  | 'known_hosts'
  | 'sysctl'
  | 'exports'
  | 'fstab'
  | 'nginx'
  | 'nftables'
  | 'smb.conf'
  | 'sfdisk';

/** Letters that none of these formats gives a meaning: of names, addresses, prefixes, numbers and Base64. */
const PLAIN = /^[\w.:/@+=-]+$/;

/** A template of a format in which a value is a bare token: throws UnwritableError for any other. */
export const plainTemplate = <F extends LineFormat>(format: F, between = ' '): Template<F> =>
  templateOf({
    format,
    between,
    quote: (value) => {
      if (!PLAIN.test(value)) throw new UnwritableError(format, value);
      return value;
    },
  });

/** A comment of a format whose comments begin with a number sign and end with the line. */
export const comment = <F extends LineFormat>(format: F, text: string): Written<F> => ({
  format,
  text: `# ${oneLine(text)}`.trimEnd(),
});
