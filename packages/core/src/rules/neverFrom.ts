import type { GatePlan } from '../model/gate';
import type { Network } from '../model/network';
import { addressSpans } from '../units/addressLine';
import { joinSpans, lessSpans, type Spans } from '../units/spans';
import { BOGONS } from './bogons';
import { prefixesOf } from './topology';

/** Sources that nobody in a zone outside honestly has: those of nobody, and of the zones within; what is its own by plan excepted. */
export function neverFrom(plan: GatePlan, networks: readonly Network[], zoneId: string): Spans {
  const inner = plan.zones
    .filter((z) => z.kind !== 'outside')
    .flatMap((z) => prefixesOf(plan, networks, z.id));
  return lessSpans(
    joinSpans(addressSpans(BOGONS), addressSpans(inner)),
    addressSpans(prefixesOf(plan, networks, zoneId)),
  );
}
