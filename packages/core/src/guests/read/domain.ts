import { XMLParser } from 'fast-xml-parser';
import { z } from 'zod';

/** A guest as a running host has it. Bytes; null where it does not say. */
export interface SeenGuest {
  name: string;
  running: boolean | null;
  cores: number | null;
  memoryBytes: number | null;
  /** What it has at this moment. */
  nowBytes: number | null;
  disks: { target: string; file: string | null }[];
  nics: { hardware: string | null; source: string | null }[];
  /** PCI addresses of devices it holds. */
  devices: string[];
}

const UNITS: Record<string, number> = {
  b: 1,
  bytes: 1,
  kb: 1000,
  k: 1024,
  kib: 1024,
  mb: 1e6,
  m: 1024 ** 2,
  mib: 1024 ** 2,
  gb: 1e9,
  g: 1024 ** 3,
  gib: 1024 ** 3,
  t: 1024 ** 4,
  tib: 1024 ** 4,
};

const attribute = z.union([z.string(), z.number()]).transform(String);
const valued = z.union([
  z.union([z.string(), z.number()]).transform((t) => ({ '#text': String(t), '@unit': 'KiB' })),
  z.looseObject({ '#text': attribute, '@unit': attribute.default('KiB') }),
]);
const text = z.union([z.string(), z.number()]).transform(String);
const looseText = z.union([text, z.looseObject({ '#text': text }).transform((o) => o['#text'])]);
const list = <T extends z.ZodType>(of: T) =>
  z
    .union([z.array(of), of.transform((one) => [one])])
    .optional()
    .transform((v) => (v ?? []) as z.output<T>[]);
const named = (key: string) => z.looseObject({ [key]: attribute.optional() }).optional();
const pci = z.looseObject({
  source: z
    .looseObject({
      address: z
        .looseObject({
          '@domain': attribute.optional(),
          '@bus': attribute.optional(),
          '@slot': attribute.optional(),
          '@function': attribute.optional(),
        })
        .optional(),
    })
    .optional(),
});
const domainSchema = z.looseObject({
  name: looseText,
  memory: valued.optional(),
  currentMemory: valued.optional(),
  vcpu: looseText.optional(),
  devices: z
    .looseObject({
      disk: list(
        z.looseObject({
          source: z.looseObject({ '@file': attribute.optional(), '@dev': attribute.optional() }).optional(),
          target: named('@dev'),
        }),
      ),
      interface: list(
        z.looseObject({
          mac: named('@address'),
          source: z
            .looseObject({ '@bridge': attribute.optional(), '@network': attribute.optional() })
            .optional(),
        }),
      ),
      hostdev: list(pci),
    })
    .optional(),
});

/** Thrown where a text is no domain XML that can be read. */
export class DomainReadError extends Error {}

const size = (v: z.output<typeof valued> | undefined): number | null => {
  if (!v) return null;
  const n = Number(v['#text']);
  const unit = UNITS[v['@unit'].toLowerCase()];
  return Number.isFinite(n) && unit !== undefined ? Math.round(n * unit) : null;
};
const hexByte = (t: string | undefined, width: number): string =>
  Number(t ?? '0')
    .toString(16)
    .padStart(width, '0');

/**
 * Domains as `virsh dumpxml` prints them, one or several (libvirt, “Domain XML format”). Entities are not expanded and no document
 * type is followed. Throws DomainReadError.
 */
export function readDomains(xml: string): SeenGuest[] {
  if (/<!(DOCTYPE|ENTITY)/i.test(xml)) throw new DomainReadError('a document type');
  const parser = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    parseTagValue: false,
    parseAttributeValue: false,
    processEntities: true,
    htmlEntities: false,
  });
  let value: unknown;
  try {
    value = parser.parse(xml);
  } catch {
    throw new DomainReadError('no XML');
  }
  const found = z
    .looseObject({ domain: list(domainSchema), domstatus: list(z.looseObject({ domain: domainSchema })) })
    .safeParse(value);
  if (!found.success) throw new DomainReadError('no domain');
  const domains = [...found.data.domain, ...found.data.domstatus.map((s) => s.domain)];
  if (domains.length === 0) throw new DomainReadError('no domain');
  return domains.map((d): SeenGuest => ({
    name: d.name,
    running: null,
    cores: d.vcpu === undefined ? null : Number(d.vcpu) || null,
    memoryBytes: size(d.memory),
    nowBytes: size(d.currentMemory),
    disks: (d.devices?.disk ?? []).map((k) => ({
      target: String(k.target?.['@dev'] ?? ''),
      file: k.source?.['@file'] ?? k.source?.['@dev'] ?? null,
    })),
    nics: (d.devices?.interface ?? []).map((k) => ({
      hardware: k.mac?.['@address'] === undefined ? null : String(k.mac['@address']),
      source: k.source?.['@bridge'] ?? k.source?.['@network'] ?? null,
    })),
    devices: (d.devices?.hostdev ?? []).flatMap((h) => {
      const a = h.source?.address;
      return a
        ? [
            `${hexByte(a['@domain'], 4)}:${hexByte(a['@bus'], 2)}:${hexByte(a['@slot'], 2)}.${hexByte(a['@function'], 1)}`,
          ]
        : [];
    }),
  }));
}
