import { useState } from 'react';
import { Primary, Quiet } from '../ui/Button';
import { FileProblems } from '../parts/FileProblems';
import { download } from '../storage/download';
import { useStore } from '../storage/hooks';
import type { UnreadableBench } from '../storage/keeper';

/** What is kept here cannot be opened: says where it is wrong, hands all of it out, and only then lets it go. */
export function Unreadable({ fault }: { fault: UnreadableBench }) {
  const store = useStore();
  const [saved, setSaved] = useState(false);
  const save = (): void => {
    download('kept-bench.json', JSON.stringify(fault.kept, null, 2), 'application/json');
    setSaved(true);
  };
  return (
    <main className="stack" style={{ padding: '40px 44px', maxWidth: 680 }}>
      <h1 style={{ maxWidth: 'none' }}>The bench kept in this browser cannot be read</h1>
      <p className="said said-stop" role="alert">
        {fault.message} Nothing was changed or deleted.
      </p>
      <FileProblems list={fault.problems} most={8} />
      <p>
        Save all of it to a file first. The file can be mended by hand, at the places named above, and opened
        again as a bench file. Then begin anew here.
      </p>
      <div className="actions">
        <Primary onClick={save}>Save what is kept to a file</Primary>
        <Quiet onClick={() => void store.beginAnew()} disabled={!saved}>
          Begin anew
        </Quiet>
      </div>
    </main>
  );
}
