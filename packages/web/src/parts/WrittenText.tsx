import { chakra, HStack } from '@chakra-ui/react';
import { useState } from 'react';
import { download } from '../storage/download';
import { Primary, Quiet } from '../ui/Button';
import { Sub } from '../ui/Words';

/** A text that leaves the house: seen whole, saved as a file, or copied. */
export function WrittenText({
  text,
  name,
  type = 'text/plain',
}: {
  text: string;
  /** Of the file. */
  name: string;
  type?: string;
}) {
  const [said, setSaid] = useState({ of: '', words: '' });
  const copy = (): void => {
    const say = (words: string): void => setSaid({ of: text, words });
    navigator.clipboard.writeText(text).then(
      () => say('Copied.'),
      () => say('The browser did not allow copying; mark the text and copy it there.'),
    );
  };
  return (
    <>
      <chakra.pre
        tabIndex={0}
        aria-label="What is written"
        textStyle="data"
        bg="bg.margin"
        border="thin"
        padding="3"
        overflow="auto"
        css={{ fontSize: '12px', maxHeight: '46vh' }}
      >
        {text}
      </chakra.pre>
      <HStack gap="3">
        <Primary onClick={() => download(name, text, type)}>Save as a file</Primary>
        <Quiet onClick={copy}>Copy</Quiet>
        <Sub role="status">{said.of === text ? said.words : ''}</Sub>
      </HStack>
    </>
  );
}
