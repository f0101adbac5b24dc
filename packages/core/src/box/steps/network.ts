import { findNetwork, hostsOfBox } from '../../model/bench';
import { pageOf } from '../../network/forBox';
import { parsePrefix } from '../../units/prefix';
import { step, type StepDraft } from '../../runsheet/step';
import type { Scene } from '../scene';

/** Each address seen to be free, given, and found again after a restart; then the page. */
export function networkSteps({ bench, box, profile }: Scene): StepDraft[] {
  const hosts = hostsOfBox(bench, box.id);
  const out: StepDraft[] = [];
  for (const host of hosts) {
    const { address } = host;
    if (address === null) continue;
    const network = findNetwork(bench, host.networkId);
    const free = `net:free:${host.id}`;
    const probed = box.reach?.probed;
    out.push(
      step(
        'network',
        free,
        { code: 'see that nobody answers', address },
        { after: ['choose:*'], seen: probed?.address === address && !probed.answered },
      ),
    );
    const set = `net:set:${host.id}`;
    if (host.manner === 'fixed')
      out.push(
        step(
          'network',
          set,
          {
            code: 'set by hand',
            host: host.name,
            address,
            bits: host.bits ?? (network?.prefix == null ? null : (parsePrefix(network.prefix)?.bits ?? null)),
            gateway: network?.gateway ?? null,
            nameServers: network?.nameServers ?? [],
          },
          { after: [free, 'first:*'] },
        ),
      );
    else if (host.manner === 'reservation')
      out.push(
        step(
          'network',
          set,
          {
            code: 'reserve',
            host: host.name,
            hardware: host.hardware,
            address,
            network: network?.name ?? '',
          },
          { after: [free, 'choose:*'] },
        ),
      );
    out.push(
      step(
        'network',
        `net:back:${host.id}`,
        { code: 'see it come back', address },
        { after: [set, 'first:*'], seen: host.seen?.address === address },
      ),
    );
  }
  const [first] = hosts;
  const page = pageOf(profile, first, findNetwork(bench, first?.networkId ?? null));
  if (page)
    out.push(
      step(
        'network',
        'net:page',
        {
          code: 'open its page',
          url: page.byAddress,
          certificate: page.byAddress.startsWith('https'),
        },
        { after: ['net:back:*'], seen: box.reach?.page != null },
      ),
    );
  return out;
}
