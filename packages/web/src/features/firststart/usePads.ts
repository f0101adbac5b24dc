import type { PadMoment } from '@zb/core/firststart/pads';
import { useEffect, useRef, useState } from 'react';

const momentOf = (pad: Gamepad): PadMoment => ({
  name: pad.id,
  standard: pad.mapping === 'standard',
  buttons: pad.buttons.map((b) => b.value),
  axes: [...pad.axes],
});

/** Pads that are connected, read at every frame; a browser names one when its first button is pressed (Gamepad, W3C). */
export function usePads(onFrame: (pads: readonly PadMoment[]) => void): readonly PadMoment[] {
  const [pads, setPads] = useState<readonly PadMoment[]>([]);
  const told = useRef(onFrame);
  useEffect(() => {
    told.current = onFrame;
  }, [onFrame]);
  useEffect(() => {
    let frame = 0;
    const read = (): void => {
      const now = navigator.getGamepads().flatMap((p) => (p ? [momentOf(p)] : []));
      setPads(now);
      told.current(now);
      frame = requestAnimationFrame(read);
    };
    frame = requestAnimationFrame(read);
    return () => cancelAnimationFrame(frame);
  }, []);
  return pads;
}
