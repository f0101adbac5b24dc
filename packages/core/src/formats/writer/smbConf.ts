import { follows } from '../../units/grammar';
import { templateOf, UnwritableError, type Written } from './template';

/** Text of smb.conf(5). */
export type SmbConf = Written<'smb.conf'>;

/**
 * Whether a value can stand in smb.conf(5): one line without blanks at its ends; % begins a substitution that nothing takes
 * back, and a backslash at the end goes on with the next line.
 */
export const isSmbValue = (value: string): boolean =>
  /^[^%\p{Cc}\p{Zl}\p{Zp}]+$/u.test(value) && value === value.trim() && !value.endsWith('\\');

/** A line of smb.conf(5). Throws UnwritableError for a value that would end it or mean something else. */
export const smb = templateOf({
  format: 'smb.conf',
  quote: (value) => {
    if (!isSmbValue(value)) throw new UnwritableError('smb.conf', value);
    return value;
  },
});

/** The head of a share. Throws UnwritableError for a name that no share has. */
export function smbSection(name: string): SmbConf {
  if (!follows('shareName', name)) throw new UnwritableError('smb.conf', name);
  return { format: 'smb.conf', text: `[${name}]` };
}
