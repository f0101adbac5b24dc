import { Box } from '@chakra-ui/react';
import { lazy, Suspense } from 'react';
import { benchToText } from '@zb/core/model/normalForm';
import type { Bench } from '@zb/core/model/bench';
import { useNotice, useStore } from '../storage/hooks';
import { download, fileName } from '../storage/download';
import { Word } from '../ui/Button';
import { To } from '../ui/To';
import { Notice } from './Notice';

/** Reads run sheets, which a first screen does not need. */
const Waits = lazy(() => import('./Waits'));

/** Slim lines above the sheet: storage trouble first, a newer version, then that this is the demo. */
export function Notices({
  bench,
  demoShown,
  newer,
  onDismissDemo,
  onEmpty,
}: {
  bench: Bench;
  demoShown: boolean;
  /** Takes a newer version of the application that is here already; undefined where there is none. */
  newer: (() => void) | undefined;
  onDismissDemo: () => void;
  onEmpty: () => void;
}) {
  const { trouble, unsaved, kind, replaced, intact, silent, pending, overtaken } = useNotice();
  const store = useStore();
  const save = (
    <Word onClick={() => download(fileName(bench.name, 'json'), benchToText(bench), 'application/json')}>
      Save to a file
    </Word>
  );
  const count = (n: number): string => (n === 1 ? '1 act is' : `${n} acts are`);
  const head =
    unsaved.length > 0
      ? `Not saved: ${count(unsaved.length)} on this screen only.`
      : replaced
        ? 'This bench is on this screen only.'
        : kind === 'memory'
          ? 'Nothing is kept in this browser.'
          : 'The browser’s storage has trouble.';
  return (
    <Box gridArea="notices" minWidth="0" _print={{ display: 'none' }}>
      {trouble !== null && (
        <Notice
          bad
          end={
            <>
              {replaced ? (
                <>
                  <Word onClick={() => void store.keepAgain()}>Keep this bench here</Word>
                  <Word onClick={() => void store.takeKept()}>Show what is kept now</Word>
                </>
              ) : (
                kind === 'browser' && <Word onClick={() => void store.retry()}>Try again</Word>
              )}
              {save}
            </>
          }
        >
          <b>{head}</b> {trouble}{' '}
          {replaced
            ? 'The bench on this screen is whole.'
            : unsaved.length > 0 &&
              (intact === true
                ? 'What was kept before was looked at just now and is unharmed.'
                : 'Whether what was kept before is unharmed is not known: save to a file.')}
        </Notice>
      )}
      {trouble === null && silent && pending > 0 && (
        <Notice bad end={save}>
          <b>Not kept yet: {count(pending)} on this screen only.</b> The browser’s storage has not answered
          for some seconds. It is still waited for.
        </Notice>
      )}
      {overtaken && (
        <Notice bad end={<Word onClick={() => store.say({ overtaken: null })}>Understood</Word>}>
          <b>Not done: {overtaken.label}.</b> Another tab was first. {overtaken.lines.join(' ')} The screen
          shows what is kept.
        </Notice>
      )}
      <Suspense fallback={null}>{bench.boxes.some((b) => b.run?.clock) && <Waits bench={bench} />}</Suspense>
      {newer && (
        <Notice end={<Word onClick={newer}>Take it now</Word>}>
          <b>A newer version of this application is here.</b> It is taken when the page is opened next;
          nothing is lost by waiting.
        </Notice>
      )}
      {demoShown && (
        <Notice
          end={
            <>
              <Word onClick={onEmpty}>Start an empty bench</Word>
              <To to="/bench">Open a bench file</To>
              <Word onClick={onDismissDemo}>Hide this line</Word>
            </>
          }
        >
          This is the demo bench, <b>{bench.name}</b>. Everything on it is made up; change what you like.
        </Notice>
      )}
    </Box>
  );
}
