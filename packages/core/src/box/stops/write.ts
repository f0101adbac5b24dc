import { isWrittenStraight, systemDriveOf } from '../../layout/systemDrive';
import { contentTitle } from '../../model/content';
import { formatIec } from '../../units/bytes';
import { serialTail } from '../../write/guard';
import { claimAgainst } from '../../plan/claims';
import { writeStands } from '../../plan/proof';
import { targetSerial } from '../../write/target';
import { predictWrite, unknownStick } from '../../write/time';
import { writtenBytes } from '../../model/written';
import { hazard, type Hazard } from '../hazard';
import type { Scene } from '../scene';
import { writeLines } from '../trade/write';
import { heldHazard } from './held';
import { plainStop, type StopModule } from '../stopModule';

const plain = plainStop('write', [1, 3], [2, 10]);

function hazards(scene: Scene): Hazard[] {
  const { bench, image, box, target } = scene;
  const out: Hazard[] = [];
  const container = image?.inspection?.container;
  if (image && container && container.kind !== 'none' && container.innerBytes !== null)
    out.push(hazard('packed', 'note', 'write', { image: image.name, kind: container.kind }));
  const stands = writeStands(bench, box);
  const installed = scene.signed('install');
  if (stands?.code === 'counts' && stands.written.result === 'failed')
    out.push(hazard('write failed', 'stop', 'write', { tail: stands.written.serial.slice(-4) }));
  if (stands?.code === 'replaced' && !installed)
    out.push(
      hazard(
        'stick holds another image',
        'stop',
        'write',
        { stick: stands.store.name, image: stands.image ?? '', box: stands.boxName ?? '' },
        { store: stands.store.id },
      ),
    );
  const claim = target && !installed ? claimAgainst(bench, box, target.id) : undefined;
  if (target && claim) out.push(heldHazard('write', target, claim));
  if (target && !installed && !isWrittenStraight(bench, box) && systemDriveOf(bench, box)?.id === target.id)
    out.push(
      hazard('stick is the system drive', 'stop', 'write', { drive: target.name }, { store: target.id }),
    );
  if (target?.realBytes != null)
    out.push(
      hazard(
        'stick lies',
        'stop',
        'write',
        { stick: target.name, claims: target.bytes, holds: target.realBytes },
        { store: target.id },
      ),
    );
  return out;
}

export const write: StopModule = {
  ...plain,
  waiting: (scene) =>
    scene.image
      ? predictWrite(writtenBytes(scene.image), scene.target ?? unknownStick(null), scene.bench.log).value
      : plain.waiting(scene),
  hazards,
  lines: writeLines,
  bytesAtRisk: ({ box, target }) => {
    const serial = targetSerial(box);
    return [
      {
        label: serial === null ? 'On the stick' : `On the stick …${serialTail(serial)}`,
        value: target ? formatIec(target.bytes) : serial === null ? 'none chosen' : 'not on the shelf',
        because: target
          ? `“${target.name}” holds ${contentTitle(target) || 'nothing'}; a write overwrites all of it`
          : serial === null
            ? 'a stick is chosen at stop 5'
            : 'the shelf has no record of this stick; put it there to see what is at risk',
      },
    ];
  },
};
