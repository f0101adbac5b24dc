import { useState } from 'react';
import { readSize, type TypedSize } from '@zb/core/units/typedSize';
import { sizeHelp, sizeProblem } from '@zb/core/words/typedSize';
import { Input } from './Input';

/**
 * A size as people type it: “60000 MB”, “58.6 GiB”, “the rest” where there is one. Both units are shown, nonsense is refused
 * in words, and what was typed stays.
 */
export function SizeField({
  label,
  text: given,
  rest = false,
  error: refused,
  onSize,
}: {
  label: string;
  text: string;
  /** May it be the rest of something? */
  rest?: boolean;
  /** What its form says of it. */
  error?: string | undefined;
  /** The size in bytes, or the rest; undefined where the text is none. */
  onSize: (size: TypedSize | undefined, text: string) => void;
}) {
  const [text, setText] = useState(given);
  const [shown, setShown] = useState(given);
  const [left, setLeft] = useState(false);
  // What its form makes of it, a draft that is back or thrown away, stands here as well.
  if (shown !== given) {
    setShown(given);
    setText(given);
  }
  const read = readSize(text, rest);
  return (
    <Input
      label={label}
      data
      value={text}
      // While it is typed every text is half a size: it is told once the field is left.
      error={left && 'problem' in read ? sizeProblem(read.problem) : refused}
      help={'problem' in read ? undefined : sizeHelp(read)}
      onBlur={() => setLeft(true)}
      onChange={(e) => {
        setText(e.target.value);
        const now = readSize(e.target.value, rest);
        onSize('problem' in now ? undefined : now, e.target.value);
      }}
      autoComplete="off"
      spellCheck={false}
    />
  );
}
