import { imageFaultWords } from '@zb/core/words/imageFinding';
import { rungWhyWords } from '@zb/core/words/chain';
import { imagePlaceWords } from '@zb/core/words/imagePlace';
import { loaderFaultWords, startWords } from '@zb/core/words/start';
import type { Evidence, ImageReading, Inspection, Outcome } from '@zb/core/model/inspection';

const line = (e: Evidence): string =>
  [
    e.what,
    e.offset === null ? '' : `at byte ${e.offset}`,
    e.bytes === '' ? '' : `: ${e.bytes}`,
    e.source && ` (${e.source})`,
  ]
    .filter((s) => s !== '')
    .join(' ')
    .replace(' :', ':');

/** How far it comes, rung by rung; where the firmware starts nothing, the loader's rung says so. */
const chainOf = (o: Outcome) =>
  o.chain.length > 0
    ? o.chain.map((r) => ({
        rung: r.rung,
        state: r.state,
        reason: r.why,
        because: rungWhyWords(r.why),
        evidence: r.evidence.map(line).join('; '),
      }))
    : [
        {
          rung: 'loader',
          state: o.starts === 'no' ? 'missing' : 'unreadable',
          reason: o.reason,
          because: startWords(o),
          evidence: o.evidence.map(line).join('; '),
        },
      ];

function outcome(o: Outcome, reading: ImageReading) {
  const arch = o.firmware.startsWith('uefi-') ? o.firmware.slice(5) : undefined;
  const loader = reading.loaders.find((l) => l.removable && l.machine === arch);
  return {
    firmware: o.firmware,
    attached: o.attached,
    starts: o.starts,
    // The reason as data; because says it.
    reason: o.reason,
    through: o.through,
    because: startWords(o),
    evidence: o.evidence.map(line).join('; '),
    chain: chainOf(o),
    signed: o.starts === 'yes' && arch ? (loader?.signed ?? null) : null,
    secureBoot: o.secureBoot?.starts ?? null,
    secureBootBecause: o.secureBoot && startWords(o.secureBoot),
  };
}

const reading = (r: ImageReading) => ({
  layout: r.layout,
  sectorSize: r.sectorSize,
  parts: r.parts,
  loaders: r.loaders.map((l) => ({
    path: l.path,
    machine: l.machine,
    signed: l.signed,
    signers: l.signers,
    fault: l.fault && { ...l.fault, says: loaderFaultWords(l.fault) },
    place: { ...l.place, says: imagePlaceWords(l.place) },
    offset: l.offset,
  })),
  outcomes: r.outcomes.map((o) => outcome(o, r)),
  // What the image says of itself, each with where it says it.
  identity: r.identity,
  findings: r.findings.map((f) => ({ ...f, what: imageFaultWords(f.fault) })),
});

/** What `zb inspect` prints: sizes and offsets in bytes, one row for each firmware and way of attaching. */
export function inspectOutput(found: Inspection, sha256: string) {
  const { kind, innerName, innerBytes, innerSha256 } = found.container;
  return {
    bytes: found.bytes,
    sha256,
    rules: found.rules,
    container: { kind, innerName, innerBytes, innerSha256 },
    ...reading(found),
    inner: found.inner ? { bytes: found.inner.bytes, ...reading(found.inner) } : null,
  };
}
