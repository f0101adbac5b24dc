import { isRouteErrorResponse, Link, useRouteError } from 'react-router';

/** The last net: says what happened, that the bench is kept, and what to do. */
export function ErrorPage() {
  const error = useRouteError();
  const words = isRouteErrorResponse(error)
    ? `${error.status} ${error.statusText}`
    : error instanceof Error
      ? error.message
      : 'unknown fault';
  return (
    <main style={{ padding: '40px 44px', maxWidth: 640 }}>
      <h1>This screen failed</h1>
      <p style={{ margin: '12px 0' }}>
        What happened: <span className="m">{words}</span>. Your bench is unharmed; it is kept in this browser.
      </p>
      <p>
        <a className="link" href="/">
          Open the bench again
        </a>{' '}
        or{' '}
        <Link className="link" to="/bench">
          save it to a file
        </Link>
        .
      </p>
    </main>
  );
}
