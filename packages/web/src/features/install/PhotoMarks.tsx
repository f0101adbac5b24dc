import { Box, HStack, Image, Stack } from '@chakra-ui/react';
import { X } from 'lucide-react';
import { useState, type KeyboardEvent, type MouseEvent } from 'react';
import { markPhoto } from '@zb/core/acts/shelf';
import type { Photo } from '@zb/core/model/bench';
import type { PhotoMark } from '@zb/core/model/photo';
import { useAct } from '../../storage/hooks';
import { Quiet } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Input } from '../../ui/Input';
import { Data, Head, Sub } from '../../ui/Words';

/** How far an arrow key moves a mark, of the picture's width. */
const STEP = 0.02;
const MOVES: Record<string, readonly [number, number]> = {
  ArrowLeft: [-STEP, 0],
  ArrowRight: [STEP, 0],
  ArrowUp: [0, -STEP],
  ArrowDown: [0, STEP],
};
const within = (n: number): number => Math.min(1, Math.max(0, n));

/** A photograph with numbered marks: put by a press on it or by a button, moved by arrow keys, each with what is there. */
export function PhotoMarks({ photo }: { photo: Photo }) {
  const act = useAct();
  const [draft, setDraft] = useState<PhotoMark[] | null>(null);
  const marks = draft ?? photo.marks;
  const keep = (next: PhotoMark[]): void => {
    setDraft(null);
    void act(markPhoto(photo, next));
  };
  const put = (e: MouseEvent<HTMLElement>): void => {
    const { left, top, width, height } = e.currentTarget.getBoundingClientRect();
    keep([
      ...marks,
      { x: within((e.clientX - left) / width), y: within((e.clientY - top) / height), text: '' },
    ]);
  };
  const move = (i: number) => (e: KeyboardEvent) => {
    const by = MOVES[e.key];
    if (!by) return;
    e.preventDefault();
    e.stopPropagation();
    keep(marks.map((m, j) => (j === i ? { ...m, x: within(m.x + by[0]), y: within(m.y + by[1]) } : m)));
  };
  return (
    <Box role="group" aria-label={`Marks on ${photo.caption}`}>
      <Head>{photo.caption}</Head>
      <HStack align="flex-start" gap="4" flexWrap="wrap">
        {/* A press on the picture is a short way; the button beside it does the same. */}
        <Box position="relative" css={{ width: 'min(100%, 420px)', cursor: 'crosshair' }} onClick={put}>
          <Image src={photo.data} alt={photo.caption} width="full" border="firm" />
          {marks.map((m, i) => (
            <IconButton
              key={i}
              word={`Mark ${i + 1}${m.text === '' ? '' : `: ${m.text}`}; arrow keys move it`}
              icon={<Data>{i + 1}</Data>}
              position="absolute"
              bg="bg"
              css={{ left: `${m.x * 100}%`, top: `${m.y * 100}%`, transform: 'translate(-50%, -50%)' }}
              onClick={(e) => e.stopPropagation()}
              onKeyDown={move(i)}
            />
          ))}
        </Box>
        <Stack gap="2">
          {marks.map((m, i) => (
            <HStack key={i} gap="2" align="flex-end">
              <Input
                label={`Mark ${i + 1}`}
                value={m.text}
                maxLength={120}
                onChange={(e) =>
                  setDraft(marks.map((x, j) => (j === i ? { ...x, text: e.target.value } : x)))
                }
                onBlur={() => draft && keep(draft)}
              />
              <IconButton
                small
                word={`Take mark ${i + 1} off`}
                icon={<X />}
                onClick={() => keep(marks.filter((_, j) => j !== i))}
              />
            </HStack>
          ))}
          <Quiet size="sm" onClick={() => keep([...marks, { x: 0.5, y: 0.5, text: '' }])}>
            Add a mark
          </Quiet>
          <Sub>Which plug, which way round, which screw.</Sub>
        </Stack>
      </HStack>
    </Box>
  );
}
