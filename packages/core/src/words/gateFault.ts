import type { GateFault } from '../model/gate';
import { list, plural } from './text';

/** What is wrong with rules. */
export function gateFaultWords(f: GateFault): string {
  switch (f.code) {
    case 'not judged':
      return `The rules have ${plural(f.permits, 'permit')}: more than are judged by the way. Open them before you give them away.`;
    case 'no outside':
      return 'No zone of the gate lies outside.';
    case 'no inside':
      return 'No zone of the gate lies inside.';
    case 'zone without port':
      return `No port leads to ${f.zone}.`;
    case 'port twice':
      return `${f.port} is there twice. A wire that several networks share has a number for each.`;
    case 'port without network':
      return `${f.port} leads to ${f.zone}, and no network with a prefix is said to lie there.`;
    case 'networks overlap':
      return `${list(f.networks)} share addresses: the gate cannot tell where to send them.`;
    case 'not there':
      return `“${f.what}” names “${f.missing}”, which is no longer there.`;
    case 'empty set':
      return `“${f.set}” holds no address: what names it meets nobody.`;
    case 'set of one family':
      return `“${f.permit}” has IPv4 on one side and IPv6 on the other: it meets no packet.`;
    case 'forward twice':
      return `${list(f.forwards)} want the same port: the first one gets it.`;
    case 'forward to nowhere':
      return `“${f.forward}” leads to ${f.to}, which lies behind no port of the gate.`;
    case 'forward of the page':
      return `“${f.forward}” opens the gate’s own page, port ${f.port}, to the outside.`;
    case 'no seat':
      return 'From where the gate is looked after was not said, so that nobody is kept from locking themselves out.';
    case 'locked out':
      return `Whoever sits in ${f.zone} would no longer reach the gate at port ${f.port}. The rules are not given away like that.`;
    case 'seat not told':
      return `Whether ${f.zone} still reaches the gate at port ${f.port} hangs on a part that is not understood.`;
    case 'promises broken':
      return f.broken === 1
        ? 'The rules break a promise you made. They are not given away until it holds.'
        : `The rules break ${f.broken} of ${f.of} promises. They are not given away until all hold.`;
    case 'promises not told':
      return `Of ${plural(f.open, 'promise')} nothing can be said, because rules have parts that are not understood.`;
    case 'rules without work':
      return `No packet ever comes to: ${list(f.rules)}.`;
    case 'hours by the clock':
      return `“${f.permit}” holds by the gate’s clock at the moment it is loaded: load it again when summer time begins and ends.`;
    case 'nothing promised':
      return 'Nothing is promised of these rules, so that nothing can be proven.';
    case 'too many classes':
      return 'The rules cross each other so often that they cannot be held in memory whole. Ask single packets.';
  }
}
