import { benchToText } from '@zb/core/model/file';
import type { Bench } from '@zb/core/model/bench';
import { Link } from 'react-router';
import { useNotice, useStore } from '../storage/hooks';
import { download, fileName } from '../storage/download';

/** Slim lines above the sheet: storage trouble first, then that this is the demo. */
export function Notices({
  bench,
  demoShown,
  onDismissDemo,
  onEmpty,
}: {
  bench: Bench;
  demoShown: boolean;
  onDismissDemo: () => void;
  onEmpty: () => void;
}) {
  const { trouble, unsaved, kind, replaced, intact, silent, pending, overtaken } = useNotice();
  const store = useStore();
  const save = (
    <button
      type="button"
      className="link"
      onClick={() => download(fileName(bench.name, 'json'), benchToText(bench), 'application/json')}
    >
      Save to a file
    </button>
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
    <div className="notices">
      {trouble !== null && (
        <div className="notice bad" role="alert">
          <span>
            <b>{head}</b> {trouble}{' '}
            {replaced
              ? 'The bench on this screen is whole.'
              : unsaved.length > 0 &&
                (intact === true
                  ? 'What was kept before was looked at just now and is unharmed.'
                  : 'Whether what was kept before is unharmed is not known: save to a file.')}
          </span>
          <span className="end">
            {replaced ? (
              <>
                <button type="button" className="link" onClick={() => void store.keepAgain()}>
                  Keep this bench here
                </button>
                <button type="button" className="link" onClick={() => void store.takeKept()}>
                  Show what is kept now
                </button>
              </>
            ) : (
              kind === 'browser' && (
                <button type="button" className="link" onClick={() => void store.retry()}>
                  Try again
                </button>
              )
            )}
            {save}
          </span>
        </div>
      )}
      {trouble === null && silent && pending > 0 && (
        <div className="notice bad" role="alert">
          <span>
            <b>Not kept yet: {count(pending)} on this screen only.</b> The browser’s storage has not answered
            for some seconds. It is still waited for.
          </span>
          <span className="end">{save}</span>
        </div>
      )}
      {overtaken && (
        <div className="notice bad" role="alert">
          <span>
            <b>Not done: {overtaken.label}.</b> Another tab was first. {overtaken.lines.join(' ')} The screen
            shows what is kept.
          </span>
          <span className="end">
            <button type="button" className="link" onClick={() => store.say({ overtaken: null })}>
              Understood
            </button>
          </span>
        </div>
      )}
      {demoShown && (
        <div className="notice">
          <span>
            This is the demo bench, <b>{bench.name}</b>. Everything on it is made up; change what you like.
          </span>
          <span className="end">
            <button type="button" className="link" onClick={onEmpty}>
              Start an empty bench
            </button>
            <Link className="link" to="/bench">
              Open a bench file
            </Link>
            <button type="button" className="link" onClick={onDismissDemo}>
              Hide this line
            </button>
          </span>
        </div>
      )}
    </div>
  );
}
