import { imageFaultWords } from '@zb/core/words/imageFinding';
import type { ReactNode } from 'react';
import type { ImageItem, Machine } from '@zb/core/model/bench';
import { contentOf, type Inspection } from '@zb/core/model/inspection';
import { formatExact, formatIec } from '@zb/core/units/bytes';
import type { OpenImage } from '../workers/openImages';
import { Anatomy } from './Anatomy';
import { ForBox } from './ForBox';
import { HashPanel } from './HashPanel';
import { Identity } from './Identity';
import { Grade } from './Marks';
import { Packed } from './Packed';
import { OutcomeGrid, type GridMachine } from './OutcomeGrid';

/** Anatomy beside digest, findings and outcomes; the same for a box and for the image room. */
export function ImageView({
  name,
  bytes,
  inspection,
  open,
  image,
  machine,
  boxMachine,
  evidence,
  onEvidence,
  onList,
  onCancel,
  children,
}: {
  name: string;
  bytes: number;
  inspection: Inspection;
  open: OpenImage | undefined;
  image: ImageItem | undefined;
  machine?: GridMachine | undefined;
  /** The machine of the box, for what to do with the image there. */
  boxMachine?: Machine | undefined;
  evidence: boolean;
  onEvidence: () => void;
  onList: (text: string, from: string) => string | null;
  onCancel: () => void;
  children?: ReactNode;
}) {
  const content = contentOf(inspection);
  return (
    <div className="verify">
      <div>
        <h2 className="h6" style={{ overflowWrap: 'anywhere' }} title={formatExact(bytes)}>
          {name}{' '}
          <span className="m" style={{ fontWeight: 400 }}>
            {formatIec(bytes)}
          </span>
        </h2>
        <div style={{ marginTop: 12 }}>
          <Anatomy key={`${name} ${content.bytes}`} reading={content} />
        </div>
      </div>
      <div className="stack">
        <HashPanel open={open} image={image} onList={onList} onCancel={onCancel} />
        <Packed inspection={inspection} />
        {content.findings.map((f) => (
          <div key={imageFaultWords(f.fault)} className={`said said-${f.grade === 'note' ? '' : f.grade}`}>
            <Grade grade={f.grade} /> {imageFaultWords(f.fault)}{' '}
            {f.offset !== undefined && evidence && <span className="m">byte {f.offset}</span>}
          </div>
        ))}
        {boxMachine && !content.findings.some((f) => f.grade === 'stop') && (
          <ForBox machine={boxMachine} reading={content} />
        )}
        <OutcomeGrid outcomes={content.outcomes} machine={machine} evidence={evidence} />
        <Identity identity={content.identity} />
        <button type="button" className="link" onClick={onEvidence} style={{ fontSize: 12.5 }}>
          {evidence ? 'Hide the evidence' : 'Show the evidence: offsets, fields, standards'}
        </button>
        {children}
      </div>
    </div>
  );
}
