import type { Bench } from '@zb/core/model/bench';
import type { Host, Network } from '@zb/core/model/network';
import { HostForm, NetworkForm } from '../../parts/LanForms';

/** The one form that is open, if any. */
export const LanForms = ({
  bench,
  network,
  host,
  onClose,
}: {
  bench: Bench;
  network: Network | null;
  host: Host | null;
  onClose: () => void;
}) => (
  <>
    {network && <NetworkForm key={network.id} bench={bench} network={network} onClose={onClose} />}
    {host && <HostForm key={host.id} bench={bench} host={host} onClose={onClose} />}
  </>
);
