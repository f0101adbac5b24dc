import { Link } from 'react-router';
import { Sheet } from './Sheet';

export default function NotFound({ what = 'Nothing is kept at this address' }: { what?: string }) {
  return (
    <>
      <Sheet title="Not found" headline={what}>
        <p>
          It may have been removed, or the address belongs to another bench. Press{' '}
          <span className="m">/</span> to find something by name, or go to the{' '}
          <Link className="link" to="/shelf">
            shelf
          </Link>
          .
        </p>
      </Sheet>
      <aside className="ledger" aria-label="Ledger" />
    </>
  );
}
