import { Box, chakra, HStack, Stack } from '@chakra-ui/react';
import { labelOfBox } from '@zb/core/network/forBox';
import { labelParts, labelSizes, type LabelSize } from '@zb/core/network/label';
import { labelOf } from '@zb/core/network/names';
import type { Bench, Box as Build } from '@zb/core/model/bench';
import { useRef, useState } from 'react';
import { downloadBlob } from '../storage/download';
import { Primary, Quiet } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { Segments } from '../ui/Segments';
import { Sub } from '../ui/Words';
import { printSvg, pngOf } from './printSvg';

const WORDS = labelSizes.map((s) => ({ value: s.id, words: `${s.width} × ${s.height} mm` }));

/** The label itself, black on white whatever the screen is like: it is for paper. Millimetres. */
function LabelDrawing({
  bench,
  box,
  size,
  of,
}: {
  bench: Bench;
  box: Build;
  size: LabelSize;
  of: React.Ref<SVGSVGElement>;
}) {
  const content = labelOfBox(bench, box);
  const parts = labelParts(content, size);
  // The page's own rules outweigh attributes of a drawing; by itself, on paper, it has these alone.
  const here = Object.fromEntries(
    parts
      .filter((p) => p.kind === 'text')
      .map((p, i) => [
        `& text:nth-of-type(${i + 1})`,
        { fontSize: `${p.size}px`, fontWeight: p.bold ? '700' : '400' },
      ]),
  );
  return (
    <chakra.svg
      ref={of}
      role="img"
      aria-label={`Label: ${[content.name, ...content.lines].join(', ')}${content.page === null ? '' : `, code for ${content.page}`}`}
      xmlns="http://www.w3.org/2000/svg"
      viewBox={`0 0 ${size.width} ${size.height}`}
      css={{
        width: '100%',
        maxWidth: `${size.width * 6}px`,
        display: 'block',
        border: '1px solid {colors.rule}',
        ...here,
      }}
    >
      <rect width={size.width} height={size.height} fill="#fff" />
      {parts.map((p) =>
        p.kind === 'text' ? (
          <text
            key={`${p.y} ${p.text}`}
            x={p.x}
            y={p.y}
            fontSize={p.size}
            fontWeight={p.bold ? 700 : 400}
            fontFamily="Atkinson Hyperlegible Next Variable, sans-serif"
            fill="#000"
          >
            {p.text}
          </text>
        ) : (
          <path
            key="code"
            fill="#000"
            shapeRendering="crispEdges"
            d={p.cells
              .flatMap((row, y) =>
                row.flatMap((dark, x) => {
                  const cell = p.side / p.cells.length;
                  return dark ? [`M${p.x + x * cell} ${p.y + y * cell}h${cell}v${cell}h${-cell}z`] : [];
                }),
              )
              .join('')}
          />
        ),
      )}
    </chakra.svg>
  );
}

/** The label of a box: name, address, purpose, where the password is kept, and a code for its page; for print and as a picture. */
export function Label({
  open,
  onClose,
  bench,
  box,
}: {
  open: boolean;
  onClose: () => void;
  bench: Bench;
  box: Build;
}) {
  const [id, setId] = useState<LabelSize['id']>('89x36');
  const drawing = useRef<SVGSVGElement>(null);
  const size = labelSizes.find((s) => s.id === id) ?? labelSizes[0];
  const save = async (): Promise<void> => {
    if (!drawing.current) return;
    downloadBlob(`${labelOf(box.name) || 'label'}.png`, await pngOf(drawing.current, size));
  };
  return (
    <Dialog open={open} onClose={onClose} title={`Label of ${box.name}`}>
      <Stack gap="3">
        <Segments label="Size of the label" options={WORDS} value={id} onTake={setId} />
        <Box>
          <LabelDrawing bench={bench} box={box} size={size} of={drawing} />
        </Box>
        <HStack gap="3">
          <Primary onClick={() => drawing.current && printSvg(drawing.current, size)}>Print it</Primary>
          <Quiet onClick={() => void save()}>Save as PNG</Quiet>
          <Sub>Where the password is kept, never the password.</Sub>
        </HStack>
      </Stack>
    </Dialog>
  );
}
