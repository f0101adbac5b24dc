import { templateOf, UnwritableError } from './template';

/** Whether a text can stand in quotes in a configuration of nginx: one line, and without $, which begins a variable that no quoting takes back. */
export const isNginxValue = (value: string): boolean => /^[^$\p{Cc}\p{Zl}\p{Zp}]*$/u.test(value);

/** A line of a configuration of nginx: every value is in quotes (ngx_conf_file.c: backslash and quote are escaped within them). Throws UnwritableError. */
export const nginx = templateOf({
  format: 'nginx',
  quote: (value) => {
    if (!isNginxValue(value)) throw new UnwritableError('nginx', value);
    return `"${value.replace(/["\\]/g, '\\$&')}"`;
  },
});
