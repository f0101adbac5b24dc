import { hazard } from '../hazard';
import { plainStop, type StopModule } from '../stopModule';

export const gather: StopModule = {
  ...plainStop('gather', [6, 12]),
  hazards: (scene) => {
    // Secure Boot is settled at the firmware stop, and said there once, from the image's own bytes where they are known.
    const changes = (scene.judged?.all ?? [])
      .filter((f) => f.outcome === 'change' && f.rule !== 'secure boot')
      .map((f) => hazard('wants a change', 'check', 'gather', {}, { from: { finding: f } }));
    const port =
      scene.fact('ports.usb') === 1
        ? [hazard('one USB port', 'check', 'gather', { machine: scene.machine?.name ?? '' })]
        : [];
    return [...changes, ...port];
  },
};
