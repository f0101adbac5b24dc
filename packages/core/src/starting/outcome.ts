import { no, type StartVerdict } from '../image/evidence';
import type { BootVolume } from '../image/loaders';
import { boardDisk } from './outcomeBoard';
import { biosDisk, biosOptical } from './outcomeBios';
import { uefiDisk, uefiOptical } from './outcomeUefi';
import type { ImageFacts } from '../image/read';
import { firmwareKinds, type ContainerKind, type Outcome } from '../model/inspection';

const withoutSecureBoot = (v: StartVerdict): StartVerdict & { secureBoot: null } => ({
  ...v,
  secureBoot: null,
});

/** The rows of the outcome grid: each firmware, with the image as a disk and as optical media. */
export async function outcomes(facts: ImageFacts, volumes: BootVolume[]): Promise<Outcome[]> {
  const rows: Outcome[] = [
    { firmware: 'bios', attached: 'disk', ...withoutSecureBoot(await biosDisk(facts)) },
    { firmware: 'bios', attached: 'optical', ...withoutSecureBoot(await biosOptical(facts)) },
  ];
  for (const arch of ['x64', 'ia32', 'aa64'] as const) {
    rows.push({ firmware: `uefi-${arch}`, attached: 'disk', ...(await uefiDisk(facts, volumes, arch)) });
    rows.push({
      firmware: `uefi-${arch}`,
      attached: 'optical',
      ...(await uefiOptical(facts, volumes, arch)),
    });
  }
  rows.push({ firmware: 'board', attached: 'disk', ...withoutSecureBoot(await boardDisk(facts, volumes)) });
  rows.push({
    firmware: 'board',
    attached: 'optical',
    ...withoutSecureBoot(no('boards read no optical media')),
  });
  return rows;
}

/** A packed file starts nothing where it is written as it is, whatever is inside. */
export function packedOutcomes(kind: ContainerKind): Outcome[] {
  return firmwareKinds.flatMap((firmware) =>
    (['disk', 'optical'] as const).map((attached) => ({
      firmware,
      attached,
      ...withoutSecureBoot(
        no(
          { code: 'packed', kind },
          {
            what: `first bytes of a ${kind} file`,
            offset: 0,
            bytes: '',
            source: 'the container’s own format',
          },
        ),
      ),
    })),
  );
}
