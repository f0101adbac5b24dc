/** A value of a YAML file: nested lists and maps of plain values. Undefined entries of a map are left out. */
export type YamlValue =
  string | number | boolean | readonly YamlValue[] | { readonly [key: string]: YamlValue | undefined };

/** What YAML calls not printable, and JSON would leave as it is (YAML 1.2 §5.1). */
const UNPRINTABLE = /[\u007f-\u009f\u2028\u2029\ufeff\ufffe\uffff]/g;

/** A string in double quotes: as in JSON, of which every string is one of YAML (YAML 1.2 §7.3.1), with what is not printable escaped. */
const text = (value: string): string =>
  JSON.stringify(value).replace(UNPRINTABLE, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`);
const key = (name: string): string => (/^[a-z_][\w-]*$/i.test(name) ? name : text(name));
const isList = (value: YamlValue): value is readonly YamlValue[] => Array.isArray(value);

function lines(value: YamlValue, pad: string): string[] {
  if (isList(value))
    return value.flatMap((v) => {
      const [first = '', ...rest] = nested(v, `${pad}  `);
      return [`${pad}- ${first.trimStart()}`, ...rest];
    });
  if (typeof value !== 'object') return [`${pad}${scalar(value)}`];
  return Object.entries(value).flatMap(([k, v]) => {
    if (v === undefined) return [];
    return typeof v === 'object' && !isEmpty(v)
      ? [`${pad}${key(k)}:`, ...lines(v, `${pad}  `)]
      : [`${pad}${key(k)}: ${scalar(v)}`];
  });
}
const isEmpty = (value: object): boolean => (Array.isArray(value) ? value : Object.keys(value)).length === 0;
const nested = (value: YamlValue, pad: string): string[] =>
  typeof value === 'object' && !isEmpty(value) ? lines(value, pad) : [`${pad}${scalar(value)}`];
const scalar = (value: YamlValue): string =>
  typeof value === 'string'
    ? text(value)
    : typeof value === 'object'
      ? isList(value)
        ? '[]'
        : '{}'
      : String(value);

/** A document in block style, every string in double quotes (YAML 1.2). `head` is a first line for its reader, such as #cloud-config. */
export const yamlOf = (value: YamlValue, head?: string): string =>
  [...(head === undefined ? [] : [`#${head}`]), ...lines(value, '')].map((l) => `${l}\n`).join('');
