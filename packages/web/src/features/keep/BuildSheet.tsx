import { memo } from 'react';
import Markdown, { type Components } from 'react-markdown';
import gfm from 'remark-gfm';

const components: Components = {
  // The screen has its own first heading; the document stands one level below it.
  h1: ({ children }) => <h2 className="title">{children}</h2>,
  h2: ({ children }) => <h3>{children}</h3>,
  // A box that cannot be ticked here is a mark and a word, not a form field.
  input: ({ checked }) => (
    <span className="tick">
      <span aria-hidden="true">{checked ? '■' : '□'}</span>
      <span className="hidden-text">{checked ? 'signed off: ' : 'open: '}</span>
    </span>
  ),
};

/** The build sheet as it reads on paper. The same text is what “Save the build sheet” saves. */
export const BuildSheet = memo(function BuildSheet({ text }: { text: string }) {
  return (
    <div className="document">
      <Markdown remarkPlugins={[gfm]} components={components}>
        {text}
      </Markdown>
    </div>
  );
});
