import { IconButton as Base, type IconButtonProps } from '@chakra-ui/react';
import { lazy, Suspense, useImperativeHandle, useRef, useState, type ReactElement, type Ref } from 'react';

const Tip = lazy(() => import('./Tip'));

/**
 * An act shown as an icon; its word is told on hover, on focus by keys, and to those who hear the page. There are many of
 * them: the word is made when it is asked for.
 */
export function IconButton({
  word,
  icon,
  keys,
  small = false,
  ref,
  ...rest
}: {
  word: string;
  icon: ReactElement;
  /** The key that does the same, told with the word. */
  keys?: string;
  /** Within a line of text: no frame of its own. */
  small?: boolean;
  ref?: Ref<HTMLButtonElement>;
} & Omit<IconButtonProps, 'children' | 'size'>) {
  const button = useRef<HTMLButtonElement | null>(null);
  useImperativeHandle(ref, () => button.current as HTMLButtonElement);
  const [told, setTold] = useState(false);
  return (
    <>
      <Base
        ref={button}
        aria-label={word}
        {...(small ? { variant: 'bare', size: 'small' } : { variant: 'outline', size: 'icon' })}
        {...rest}
        onPointerEnter={(e) => {
          rest.onPointerEnter?.(e);
          // A finger has no place to rest: what it presses is done.
          setTold(e.pointerType === 'mouse');
        }}
        onPointerDown={(e) => {
          rest.onPointerDown?.(e);
          setTold(false);
        }}
        onPointerLeave={(e) => {
          rest.onPointerLeave?.(e);
          setTold(false);
        }}
        onFocus={(e) => {
          rest.onFocus?.(e);
          setTold(e.target.matches(':focus-visible'));
        }}
        onBlur={(e) => {
          rest.onBlur?.(e);
          setTold(false);
        }}
        onKeyDown={(e) => {
          rest.onKeyDown?.(e);
          if (e.key === 'Escape') setTold(false);
        }}
      >
        {icon}
      </Base>
      {told && (
        <Suspense fallback={null}>
          <Tip of={button} words={keys === undefined ? word : `${word} (${keys})`} />
        </Suspense>
      )}
    </>
  );
}
