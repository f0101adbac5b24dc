import { useState } from 'react';
import type { Bench, ImageItem } from '@zb/core/model/bench';
import { storesOf } from '@zb/core/model/bench';
import { formatIec } from '@zb/core/units/bytes';
import { notFromFileWords, severalWords } from '@zb/core/words/several';
import { severalOnStick } from '@zb/core/write/severalOnStick';
import { Quiet } from '../../ui/Button';
import { download } from '../../storage/download';

/** Several installers on one stick: which of them start out of their own files, what that needs, and the loader's menu. */
export function SeveralPane({ bench, images }: { bench: Bench; images: readonly ImageItem[] }) {
  const [left, setLeft] = useState<readonly string[]>([]);
  const plan = severalOnStick(
    images.filter((i) => !left.includes(i.id)),
    storesOf(bench),
  );
  const why = new Map(plan.images.map((i) => [i.id, i.not]));
  return (
    <details className="why">
      <summary>Several of them on one stick</summary>
      <p>{severalWords(plan)}</p>
      {images.map((i) => {
        const not = why.get(i.id);
        return (
          <label className="check" key={i.id}>
            <input
              type="checkbox"
              checked={!left.includes(i.id)}
              onChange={(e) => setLeft(e.target.checked ? left.filter((id) => id !== i.id) : [...left, i.id])}
            />
            <span>
              {i.name} <span className="m">{formatIec(i.bytes)}</span>
              {not && <span className="sub">not from its file: {notFromFileWords(not)}</span>}
            </span>
          </label>
        );
      })}
      {plan.config !== '' && (
        <>
          <p className="sub">
            Give the stick one FAT32 part, put GRUB on it, this menu as /boot/grub/grub.cfg, and the images
            into /images.
          </p>
          <Quiet onClick={() => download('grub.cfg', plan.config, 'text/plain')}>Save the menu</Quiet>
        </>
      )}
    </details>
  );
}
