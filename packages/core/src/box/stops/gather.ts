import { hazard, type Hazard } from '../hazard';
import type { Scene } from '../scene';
import { gatherLines } from '../trade/gather';
import { plainStop, type StopModule } from '../stopModule';

/** Firmware from before about this year often does not start from USB. Common practice, no source. */
const USB_SINCE = 2006;

/** Whether a stick can start the machine at all, where its age or its setup says otherwise. */
function usbStart(scene: Scene): Hazard[] {
  const { machine } = scene;
  if (!machine) return [];
  const seen = scene.fact('firmware.startsUsb');
  const dated = /(\d{4})\s*$/.exec(String(scene.fact('firmware.date') ?? ''))?.[1];
  const year = Number(scene.fact('cpu.year') ?? dated ?? USB_SINCE);
  if (seen === true || (seen === undefined && year >= USB_SINCE)) return [];
  const grade = seen === false ? 'stop' : 'check';
  return [hazard('may not start from USB', grade, 'gather', { machine: machine.name, year })];
}

export const gather: StopModule = {
  ...plainStop('gather', [6, 12]),
  lines: gatherLines,
  hazards: (scene) => {
    // Secure Boot is settled at the firmware stop, and said there once, from the image's own bytes where they are known.
    const changes = (scene.judged?.all ?? [])
      .filter((f) => f.outcome === 'change' && f.rule !== 'secure boot')
      .map((f) => hazard('wants a change', 'check', 'gather', {}, { from: { finding: f } }));
    const port =
      scene.fact('ports.usb') === 1
        ? [hazard('one USB port', 'check', 'gather', { machine: scene.machine?.name ?? '' })]
        : [];
    return [...changes, ...port, ...usbStart(scene)];
  },
};
