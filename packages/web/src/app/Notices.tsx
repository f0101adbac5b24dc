import { benchToText } from '@zb/core/schema/file';
import type { Bench } from '@zb/core/schema/bench';
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
  const { trouble, unsaved, kind } = useNotice();
  const store = useStore();
  return (
    <div className="notices">
      {trouble !== null && (
        <div className="notice bad" role="alert">
          <span>
            <b>
              {unsaved.length > 0
                ? `Not saved: ${unsaved.length} ${unsaved.length === 1 ? 'act is' : 'acts are'} on this screen only.`
                : 'Nothing is kept in this browser.'}
            </b>{' '}
            {trouble} {unsaved.length > 0 && 'What was kept before is unharmed.'}
          </span>
          <span className="end">
            {kind === 'browser' && (
              <button type="button" className="link" onClick={() => void store.retry()}>
                Try again
              </button>
            )}
            <button
              type="button"
              className="link"
              onClick={() => download(fileName(bench.name, 'json'), benchToText(bench), 'application/json')}
            >
              Save to a file
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
