import { Stack } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { FileLine, FindingView } from '@zb/core/content/view';
import { contentEffect, contentTitle, remedyWords } from '@zb/core/words/carry';
import { counted } from '@zb/core/words/text';
import { Quiet } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Data, Sub } from '../../ui/Words';
import type { Content } from './useContent';

const PAGE = 100;

/** The files of one finding, a hundred at a time, and what becomes of each. */
export function FoundFiles({
  content,
  index,
  finding,
  onClose,
}: {
  content: Content;
  index: number;
  finding: FindingView | undefined;
  onClose: () => void;
}) {
  const [lines, setLines] = useState<FileLine[]>([]);
  const { get } = content;
  useEffect(() => {
    let here = true;
    void get()
      .files(index, 0, PAGE)
      .then((found) => here && setLines(found));
    return () => {
      here = false;
    };
  }, [get, index]);
  if (!finding) return null;
  const more = async (): Promise<void> => {
    const found = await get().files(index, lines.length, PAGE);
    setLines((before) => [...before, ...found]);
  };
  return (
    <Dialog open onClose={onClose} title={contentTitle(finding.fault)} size="lg">
      <Stack gap="3">
        <Sub>{contentEffect(finding.fault, finding.bytes)}</Sub>
        <Ruled label="Files" heads={['File', 'What becomes of it']}>
          {lines.map((l) => (
            <Line key={l.path}>
              <LineHead fontWeight="normal" overflowWrap="anywhere">
                <Data>{l.path}</Data>
              </LineHead>
              <Cell overflowWrap="anywhere">
                {l.act === null ? (
                  'stays as it is'
                ) : (
                  <>
                    {remedyWords(l.act)}
                    {l.to !== null && (
                      <>
                        {' '}
                        {l.act === 'leave' ? 'the same as ' : ''}
                        <Data>{l.to}</Data>
                      </>
                    )}
                  </>
                )}
              </Cell>
            </Line>
          ))}
        </Ruled>
        {lines.length < finding.count && (
          <Quiet onClick={() => void more()}>
            More: {counted(lines.length)} of {counted(finding.count)} are shown
          </Quiet>
        )}
      </Stack>
    </Dialog>
  );
}
