import { nvmeLink, sataLink, usbLinks } from '../machine/links';

/** How a measured rate stands to the links there are: the least that could carry it, and how much of it is used. */
export interface Allowed {
  /** The slowest link that could carry the rate, by name, with what it carries at most in bytes/s, and why. */
  by: { name: string; bytesPerSecond: number; because: string };
  /** Share of it that was reached, 0 to 1. */
  share: number;
  /** The next slower link, which it cannot have been; null where there is none. */
  not: string | null;
}

/** TCP over Ethernet: 1460 of the 1538 bytes of a full frame with its gap (IEEE 802.3 §4.4.2, RFC 9293 and RFC 791 heads). */
const ethernet = (megabits: number) => ({
  name: `Ethernet ${megabits >= 1000 ? `${megabits / 1000} Gb/s` : `${megabits} Mb/s`}`,
  bytesPerSecond: ((megabits * 1e6) / 8) * (1460 / 1538),
  because: '1460 of 1538 bytes of a full frame are payload of TCP (IEEE 802.3)',
});

const LINKS = {
  drive: [
    usbLinks.usb2,
    sataLink(1.5),
    sataLink(3),
    usbLinks.usb5,
    sataLink(6),
    usbLinks.usb10,
    usbLinks.usb20,
    nvmeLink(3, 4),
    nvmeLink(4, 4),
    nvmeLink(5, 4),
  ],
  wire: [10, 100, 1000, 2500, 5000, 10_000].map(ethernet),
};

/** Measuring and counting differ by so much at most: what passes a link by less has not passed it. Common practice, no source. */
const SLACK = 1.01;

/** The links a rate tells of; undefined where it is more than any of them carries (then it came out of memory). */
export function allowedBy(kind: keyof typeof LINKS, bytesPerSecond: number): Allowed | undefined {
  const links = [...LINKS[kind]].sort((a, b) => a.bytesPerSecond - b.bytesPerSecond);
  const at = links.findIndex((l) => bytesPerSecond <= l.bytesPerSecond * SLACK);
  const by = links[at];
  return (
    by && { by, share: Math.min(1, bytesPerSecond / by.bytesPerSecond), not: links[at - 1]?.name ?? null }
  );
}
