import { Primary, Quiet } from '../ui/Button';
import { useNotice, useStore } from '../storage/hooks';

/** While no bench is on the screen: that it is being opened, that storage does not answer, or that another tab has one. */
export function Opening({ demo, onBegin }: { demo: boolean; onBegin: () => void }) {
  const { silent, elsewhere } = useNotice();
  const store = useStore();
  if (elsewhere !== null)
    return (
      <main className="stack" style={{ padding: '40px 44px', maxWidth: 760 }}>
        <h1 style={{ maxWidth: 'none' }}>Another tab has a bench that is not kept here</h1>
        <p role="alert" className="said said-check">
          This browser keeps no bench, but another tab shows <b>{elsewhere}</b>. Nothing was changed. Go to
          that tab and keep its bench there, or save it to a file; then open it here.
        </p>
        <div className="actions">
          <Primary onClick={() => location.reload()}>Look again</Primary>
          <Quiet onClick={onBegin}>
            {demo ? 'Begin with the demo bench here' : 'Begin an empty bench here'}
          </Quiet>
        </div>
      </main>
    );
  if (silent)
    return (
      <main className="stack" style={{ padding: '40px 44px', maxWidth: 760 }}>
        <h1 style={{ maxWidth: 'none' }}>The browser’s storage does not answer</h1>
        <p role="alert" className="said said-check">
          It was asked for your bench some seconds ago and is still waited for. Nothing was changed, and
          nothing is known about what is kept. Close other tabs of this application, or start the browser
          again. Without storage you can open a bench file, and save it to a file again.
        </p>
        <div className="actions">
          <Primary onClick={() => location.reload()}>Open the page again</Primary>
          <Quiet onClick={() => store.goOnWithout()}>Go on without storage</Quiet>
        </div>
      </main>
    );
  return <p style={{ padding: 24 }}>Opening the bench…</p>;
}
