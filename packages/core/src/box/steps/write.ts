import { writtenBytes } from '../../model/written';
import { step, type StepDraft } from '../../runsheet/step';
import { predictWrite, unknownStick } from '../../write/time';
import { storesOf } from '../../model/bench';
import { span } from '../../units/duration';
import { writeLines } from '../trade/write';
import { innerDriveOf, straightWay, systemDriveOf } from '../../layout/systemDrive';
import { usbAdapterOf } from '../../write/adapter';
import { standingWrite } from '../../plan/proof';
import type { Scene } from '../scene';
import { aroundSteps, Chosen } from './precautions';

/** Before a drive is written straight: what is put away for it, named and made certain. */
const AT_WRITER = ['write:away:*', 'write:power', 'label:*', 'open:out:*'];

function written({ bench, box, image, target }: Scene): boolean {
  const w = standingWrite(bench, box);
  return (
    w?.result === 'proven' &&
    (image === undefined || w.imageId === image.id) &&
    (target === undefined || w.serial === target.serial)
  );
}

/** Copies first, then the stick, card or drive itself. */
export function writeSteps(scene: Scene): StepDraft[] {
  const { bench, box, profile, image, target, machine } = scene;
  const chosen = new Chosen(scene);
  const drive = (id: string | null) => storesOf(bench).find((s) => s.id === id);
  const copies = chosen.of('copy').flatMap((p): StepDraft[] => {
    const d = drive(p.drive);
    return d
      ? [
          step(
            'write',
            `save:${d.id}`,
            { code: 'copy away', drive: d.name, bytes: d.bytes, serial: d.serial },
            { after: ['choose:*'], alone: span(p.minutes * 60) },
          ),
        ]
      : [];
  });
  const goesTo = scene.rehearsed?.plan.drives.find((d) => d.role === 'target');
  const label =
    chosen.has('label') && goesTo
      ? [
          step(
            'write',
            'label:target',
            { code: 'label the target', drive: goesTo.name, serial: goesTo.serial },
            { after: ['choose:*'] },
          ),
        ]
      : [];
  if (!profile || !machine) return [...copies, ...label];
  const way = straightWay(bench, box);
  const straight = way !== null;
  const inner = way === 'stick' ? innerDriveOf(bench, box) : undefined;
  const adapter = way === 'adapter' ? usbAdapterOf(bench) : undefined;
  const stays = writeLines(scene).flatMap((l) => (l.code === 'unplug what stays' ? l.drives : []));
  const bytes = image ? writtenBytes(image) : 0;
  const write = step(
    'write',
    'write:write',
    {
      code: 'write',
      image: image?.name ?? profile.name,
      bytes,
      onto: target?.name ?? '',
      serial: target?.serial ?? null,
      as:
        target?.kind ??
        (way === 'card' ? 'card' : way === 'adapter' || way === 'in place' ? 'drive' : 'stick'),
      read: chosen.has('read') && straight,
      inPlace: way === 'in place',
    },
    {
      after: [
        ...['verify:*', 'gather:*', 'save:*', 'choose:*', 'write:unplug'],
        // What is erased for it is erased before it is written.
        ...(target ? [`open:erase:${target.id}`] : []),
        ...(straight ? AT_WRITER : []),
      ],
      must: [
        {
          code: 'medium is chosen',
          of: straight ? 'the medium to write to' : 'the stick',
          id: target?.id ?? null,
        },
        ...(straight || !target
          ? []
          : [{ code: 'stick is not the system drive' as const, of: target.name, id: target.id }]),
        ...(inner ? [{ code: 'way is decided' as const, of: inner.name, id: inner.id }] : []),
        ...(way === 'adapter'
          ? [{ code: 'adapter is at hand' as const, of: target?.name ?? '', id: adapter?.id ?? null }]
          : []),
        ...(way === 'in place'
          ? [
              { code: 'drive is in the machine' as const, of: target?.name ?? '', id: target?.id ?? null },
              { code: 'another system runs' as const, of: target?.name ?? '', id: target?.id ?? null },
            ]
          : []),
        { code: 'sum agrees', of: image?.name ?? '', id: image?.id ?? null },
        { code: 'drive may be lost', of: target?.name ?? '', id: target?.id ?? null },
        { code: 'image fits', of: target?.name ?? '', id: target?.id ?? null },
      ],
      seen: written(scene),
      effects: target
        ? [
            {
              code: 'write image',
              medium: target.id,
              image: image?.id ?? null,
              system: straight && systemDriveOf(bench, box)?.id === target.id,
            },
          ]
        : [],
      ...(image ? { alone: predictWrite(bytes, target ?? unknownStick(null), bench.log).value } : {}),
    },
  );
  const chainStick = box.chain && drive(box.chain.stickId);
  return [
    ...copies,
    ...label,
    ...(straight ? aroundSteps(scene, chosen, 'write') : []),
    ...(stays.length > 0
      ? [
          step(
            'write',
            'write:unplug',
            { code: 'unplug at the writer', drives: stays },
            { after: ['gather:*'] },
          ),
        ]
      : []),
    write,
    ...(box.chain && chainStick
      ? [
          step(
            'write',
            'write:chain',
            {
              code: 'make the chain stick',
              stick: chainStick.name,
              drive: goesTo?.name ?? machine.name,
              seconds: box.chain.seconds,
            },
            {
              after: ['gather:*', 'choose:*'],
              effects: [{ code: 'make chain loader', medium: chainStick.id }],
            },
          ),
        ]
      : []),
  ];
}
