import { no, type StartVerdict } from '../image/verdict';
import type { BootVolume, UefiArch } from '../image/loaders';
import { boardDisk } from './outcomeBoard';
import { biosDisk, biosOptical } from './outcomeBios';
import { withChain } from './chain/follow';
import { uefiDisk, uefiOptical, type UefiVerdict } from './outcomeUefi';
import type { ImageFacts } from '../image/read';
import { firmwareKinds, type ContainerKind, type FirmwareKind, type Outcome } from '../model/inspection';

const withoutSecureBoot = (v: StartVerdict): UefiVerdict => ({ ...v, secureBoot: null });

/** The rows of the outcome grid: each firmware, with the image as a disk and as optical media. */
export async function outcomes(facts: ImageFacts, volumes: BootVolume[]): Promise<Outcome[]> {
  const row = async (
    firmware: FirmwareKind,
    attached: Outcome['attached'],
    arch: UefiArch | undefined,
    verdict: UefiVerdict,
  ): Promise<Outcome> => {
    const whole = await withChain(facts, { arch, attached }, verdict);
    // Where nothing starts without Secure Boot, it is not asked with it.
    return { firmware, attached, ...whole, secureBoot: whole.starts === 'no' ? null : whole.secureBoot };
  };
  const rows: Outcome[] = [
    await row('bios', 'disk', undefined, withoutSecureBoot(await biosDisk(facts))),
    await row('bios', 'optical', undefined, withoutSecureBoot(await biosOptical(facts))),
  ];
  for (const arch of ['x64', 'ia32', 'aa64'] as const) {
    rows.push(await row(`uefi-${arch}`, 'disk', arch, await uefiDisk(facts, volumes, arch)));
    rows.push(await row(`uefi-${arch}`, 'optical', arch, await uefiOptical(facts, volumes, arch)));
  }
  rows.push(await row('board', 'disk', undefined, withoutSecureBoot(await boardDisk(facts, volumes))));
  rows.push(await row('board', 'optical', undefined, withoutSecureBoot(no('boards read no optical media'))));
  return rows;
}

/** A packed file starts nothing where it is written as it is, whatever is inside. */
export function packedOutcomes(kind: ContainerKind): Outcome[] {
  return firmwareKinds.flatMap((firmware) =>
    (['disk', 'optical'] as const).map((attached) => ({
      firmware,
      attached,
      chain: [],
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
