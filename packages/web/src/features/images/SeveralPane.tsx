import { Stack, Text } from '@chakra-ui/react';
import { useState } from 'react';
import type { Bench, ImageItem } from '@zb/core/model/bench';
import { storesOf } from '@zb/core/model/bench';
import { formatIec } from '@zb/core/units/bytes';
import { notFromFileWords, severalWords } from '@zb/core/words/several';
import { severalOnStick } from '@zb/core/write/severalOnStick';
import { Quiet } from '../../ui/Button';
import { Checkbox } from '../../ui/Checkbox';
import { Fold } from '../../ui/Fold';
import { Data, Sub } from '../../ui/Words';
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
    <Fold title="Several of them on one stick">
      <Stack gap="2" align="flex-start">
        <Text>{severalWords(plan)}</Text>
        {images.map((i) => {
          const not = why.get(i.id);
          return (
            <Checkbox
              key={i.id}
              checked={!left.includes(i.id)}
              onChange={(on) => setLeft(on ? left.filter((id) => id !== i.id) : [...left, i.id])}
            >
              {i.name} <Data>{formatIec(i.bytes)}</Data>
              {not && <Sub>not from its file: {notFromFileWords(not)}</Sub>}
            </Checkbox>
          );
        })}
        {plan.config !== '' && (
          <>
            <Sub>
              Give the stick one FAT32 part, put GRUB on it, this menu as /boot/grub/grub.cfg, and the images
              into /images.
            </Sub>
            <Quiet onClick={() => download('grub.cfg', plan.config, 'text/plain')}>Save the menu</Quiet>
          </>
        )}
      </Stack>
    </Fold>
  );
}
