import { WEAK_BATTERY } from './power';
import { formatNumber } from '../units/number';
import type { Details } from '../model/details';
import type { NetworkPort } from '../model/shelf';
import { formatIec } from '../units/bytes';
import { EdidError, hexBytes, readEdid } from '../formats/edid';
import { healthWords } from './health';

/** One line of a table of the machine sheet; `grade` where it calls for an act. */
export interface DetailLine {
  what: string;
  is: string;
  grade?: 'check' | 'stop';
}

/** Details of a machine as rows for its sheet. */
export interface DetailTable {
  title: string;
  lines: DetailLine[];
}

function displayLine(connector: string, hex: string): DetailLine {
  try {
    const e = readEdid(hexBytes(hex));
    const words = [
      e.name,
      e.native && `${e.native.width} × ${e.native.height}`,
      e.refreshHz !== null && `${e.refreshHz.toFixed(2)} Hz`,
      e.rates && `takes ${e.rates.least} to ${e.rates.most} Hz`,
      e.sizeMm && `${e.sizeMm.width} × ${e.sizeMm.height} mm`,
      e.portrait ? 'upright: rotate it' : null,
      e.audio ? 'takes sound' : 'no sound',
    ];
    return { what: connector, is: words.filter(Boolean).join(', ') };
  } catch (error) {
    if (!(error instanceof EdidError)) throw error;
    return { what: connector, is: error.message, grade: 'check' };
  }
}

const linkWords = (n: number | null, gts: number | null): string =>
  n === null ? 'not known' : `×${n}${gts === null ? '' : ` at ${gts} GT/s`}`;

/** What a survey found beyond the facts, as the tables of the machine sheet; empty tables are left out. */
export function detailTables(details: Details, network: readonly NetworkPort[] = []): DetailTable[] {
  const tables: DetailTable[] = [
    {
      title: 'Memory modules',
      lines: details.modules.map((m) => ({
        what: m.slot,
        is:
          m.bytes === null
            ? 'free'
            : [formatIec(m.bytes), m.type, m.form, m.speedMts && `${m.speedMts} MT/s`]
                .filter(Boolean)
                .join(', '),
      })),
    },
    {
      title: 'Health of drives',
      lines: details.health.map((h): DetailLine => {
        const { grade, words } = healthWords(h);
        const hours = h.hours === null ? '' : ` ${formatNumber(h.hours)} hours.`;
        return {
          what: h.serial ? `${h.name}, …${h.serial.slice(-4)}` : h.name,
          is: words + hours,
          ...(grade === 'good' ? {} : { grade }),
        };
      }),
    },
    { title: 'Displays', lines: details.displays.map((d) => displayLine(d.connector, d.edid)) },
    {
      title: 'Batteries',
      lines: details.batteries.map((b): DetailLine => {
        const share = b.designWh && b.fullWh !== null ? Math.round((100 * b.fullWh) / b.designWh) : null;
        const weak = share !== null && share < WEAK_BATTERY;
        return {
          what: b.name,
          is: [
            share === null
              ? 'capacity not told'
              : `${share} % left: ${b.fullWh?.toFixed(1)} of ${b.designWh?.toFixed(1)} Wh`,
            b.cycles === null ? null : `${b.cycles} cycles`,
            weak ? 'replace it, or run on mains only' : null,
          ]
            .filter(Boolean)
            .join(', '),
          ...(weak ? { grade: 'check' as const } : {}),
        };
      }),
    },
    {
      title: 'Network devices',
      lines: network.map((p): DetailLine => ({
        what: p.name,
        is: [
          p.kind,
          p.driver && `${p.driver}${p.family ? ` (${p.family})` : ''}`,
          p.speedMbps && `${p.speedMbps} Mb/s`,
        ]
          .filter(Boolean)
          .join(', '),
        // Without a driver of the kernel's own there may be no network to fetch one over.
        ...(p.family === 'out-of-tree' ? { grade: 'check' as const } : {}),
      })),
    },
    {
      title: 'PCIe links',
      lines: details.links.map((l): DetailLine => {
        const slower =
          (l.lanes ?? 0) < (l.maxLanes ?? 0) || (l.gts !== null && l.maxGts !== null && l.gts < l.maxGts);
        return {
          what: `${l.name}, ${l.what}`,
          is: `${linkWords(l.lanes, l.gts)}${slower ? `; it could do ${linkWords(l.maxLanes, l.maxGts)}` : ''}`,
          // Graphics slow their link down when idle; a drive or a network device on fewer lanes is worth a look.
          ...(slower && l.what !== 'graphics' && (l.lanes ?? 0) < (l.maxLanes ?? 0)
            ? { grade: 'check' as const }
            : {}),
        };
      }),
    },
    {
      title: 'Fans and temperatures',
      lines: details.sensors.map((s) => ({
        what: s.label,
        is: s.kind === 'fan' ? `${s.value} a minute` : `${s.value.toFixed(0)} °C`,
      })),
    },
    {
      title: 'Boot entries',
      lines: details.bootEntries.map((b) => ({
        what: b.id,
        is: [
          b.label,
          b.first ? 'tried first' : null,
          b.next ? 'tried before all at the next start' : null,
          b.inOrder ? null : 'not in the boot order',
          b.active ? null : 'not active',
        ]
          .filter(Boolean)
          .join(', '),
      })),
    },
  ];
  return tables.filter((t) => t.lines.length > 0);
}
