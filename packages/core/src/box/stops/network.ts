import { differenceInCalendarDays, parseISO } from 'date-fns';
import { findNetwork, hostsOfBox } from '../../model/bench';
import { findingsOfBox } from '../../network/forBox';
import { serves } from '../../system/serves';
import { hazard, type Hazard } from '../hazard';
import type { Scene } from '../scene';
import { plainStop, type StopModule } from '../stopModule';
import { networkLines } from '../trade/network';
import { judgedOn } from '../today';

/** A certificate that ends within so many days is spoken of. Common practice, no source. */
const SOON_DAYS = 30;

function hazards({ bench, box, profile }: Scene): Hazard[] {
  const name = (id: string): string =>
    bench.hosts.find((h) => h.id === id)?.name ?? findNetwork(bench, id)?.name ?? '';
  const found = findingsOfBox(bench, box).map((f) =>
    hazard(
      'network',
      f.grade,
      'network',
      {},
      {
        from: { network: { fault: f.fault, hosts: f.hosts.map(name), networks: f.networks.map(name) } },
      },
    ),
  );
  const reach = box.reach;
  const today = judgedOn();
  if (reach?.page?.expires != null && today !== undefined) {
    const days = differenceInCalendarDays(parseISO(reach.page.expires), parseISO(today));
    if (days <= SOON_DAYS)
      found.push(hazard('certificate ends', 'check', 'network', { day: reach.page.expires, days }));
  }
  const login = profile?.login === 'shipped default' && reach?.shell === 'on' && !reach.defaultUserGone;
  if (login) found.push(hazard('default user over the network', 'stop', 'network', { system: profile.name }));
  return found;
}

export const network: StopModule = {
  ...plainStop('network', [3, 6]),
  hazards,
  lines: networkLines,
  questions: ({ bench, box, machine }) =>
    machine &&
    serves(box.purpose) &&
    hostsOfBox(bench, box.id).length === 0 &&
    !box.signoffs.some((s) => s.stop === 'network')
      ? [`At which address will ${box.name} answer?`]
      : [],
};
