import { packedWords } from '@zb/core/words/packed';
import type { Inspection } from '@zb/core/model/inspection';
import { groupedHex } from '@zb/core/checksum/compare';

/** A packed file: what it is, what is inside, and what that means for writing it. */
export function Packed({ inspection }: { inspection: Inspection }) {
  const words = packedWords(inspection);
  if (!words) return null;
  return (
    <div className="stack" style={{ gap: 6 }}>
      <h2 className="h6">{words.title}</h2>
      <p>{words.inside}</p>
      {inspection.container.innerSha256 !== null && (
        <div className="hash">
          <span>SHA-256 inside</span>
          <span>
            <mark className="plain">{groupedHex(inspection.container.innerSha256)}</mark>
          </span>
        </div>
      )}
      <p className="said">{words.writing}</p>
    </div>
  );
}
