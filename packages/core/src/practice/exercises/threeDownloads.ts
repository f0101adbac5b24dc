import type { PracticeAct } from '../../model/practice';
import { pick, shuffled, whole, type Random } from '../draw';
import type { Exercise } from '../play';
import { said } from '../said';
import { offer, type Panel, type Row, type Scene } from '../scene';
import type { Tale } from '../tale';

type Kind = 'good' | 'changed' | 'other processor';
interface Download {
  id: string;
  name: string;
  bytes: number;
  digest: string;
  kind: Kind;
}
type ListId = 'beside' | 'signed';

/** Hexadecimal digits of a SHA-256 (64 of them). */
const digest = (random: Random): string =>
  Array.from({ length: 64 }, () => pick(random, [...'0123456789abcdef'])).join('');

/** The same but for a few digits in the middle: whoever compares the ends alone sees no difference. */
function nearly(random: Random, of: string): string {
  const at = whole(random, 24, 34);
  const old = of.slice(at, at + 4);
  const other = [...old].map((c) => (c === 'f' ? '0' : (Number.parseInt(c, 16) + 1).toString(16))).join('');
  return of.slice(0, at) + other + of.slice(at + 4);
}

/** Three downloads and two lists of digests: one lies where the downloads lay, one is signed. */
class ThreeDownloads implements Scene {
  private readonly files: Download[];
  private readonly lists: Record<ListId, Map<string, string>>;
  private readonly computed = new Set<string>();
  private readonly read = new Set<ListId>();
  private readonly checked = new Set<ListId>();

  constructor(random: Random) {
    const version = `${whole(random, 4, 9)}.${whole(random, 0, 9)}`;
    const [right, arm] = [digest(random), digest(random)];
    const file = (id: string, name: string, kind: Kind, hex: string): Download => ({
      id,
      name,
      bytes: whole(random, 1200, 2900) * 1e6,
      digest: hex,
      kind,
    });
    const changed = nearly(random, right);
    this.files = shuffled(random, [
      file('first', `saltpan-${version}-x86_64.iso`, 'changed', changed),
      file('second', `saltpan-${version}-x86_64 (1).iso`, 'good', right),
      file('third', `saltpan-${version}-arm64.iso`, 'other processor', arm),
    ]);
    const names = { x86: `saltpan-${version}-x86_64.iso`, arm: `saltpan-${version}-arm64.iso` };
    this.lists = {
      beside: new Map([
        [names.x86, changed],
        [names.arm, arm],
      ]),
      signed: new Map([
        [names.x86, right],
        [names.arm, arm],
      ]),
    };
  }

  panels(): Panel[] {
    const list = (id: ListId): Row => ({
      id,
      cells: [
        said(`list ${id}`),
        this.checked.has(id) ? said(id === 'signed' ? 'signature good' : 'no signature') : '–',
      ],
      ...(this.checked.has(id) ? { mark: id === 'signed' ? ('yes' as const) : ('ask' as const) } : {}),
      offers: [
        ...(this.read.has(id) ? [] : [offer('read list', id)]),
        ...(this.checked.has(id) ? [] : [offer('check signature', id)]),
      ],
    });
    const lines = (['beside', 'signed'] as const)
      .filter((id) => this.read.has(id))
      .flatMap((id) => [said(`list ${id}`), ...[...this.lists[id]].map(([name, hex]) => `${hex}  ${name}`)]);
    return [
      {
        kind: 'table',
        title: said('downloads'),
        heads: ['file', 'size', 'digest'].map((h) => said(`head ${h}`)),
        rows: this.files.map((f) => ({
          id: f.id,
          cells: [f.name, said('bytes', { bytes: f.bytes }), this.computed.has(f.id) ? f.digest : '–'],
          offers: [
            ...(this.computed.has(f.id) ? [] : [offer('compute', f.id, { name: f.name })]),
            offer('write this', f.id, { name: f.name }),
          ],
        })),
        offers: [],
      },
      {
        kind: 'table',
        title: said('lists'),
        heads: ['list', 'signature'].map((h) => said(`head ${h}`)),
        rows: [list('beside'), list('signed')],
        offers: [],
      },
      { kind: 'paper', title: said('paper'), lines: [said('paper processor'), ...lines] },
    ];
  }

  take(act: PracticeAct, tale: Tale): void {
    const on = act.on ?? '';
    switch (act.do) {
      case 'compute':
        this.computed.add(on);
        tale.takes(1);
        return;
      case 'read list':
        this.read.add(on as ListId);
        tale.takes(1);
        return;
      case 'check signature':
        this.checked.add(on as ListId);
        tale.takes(1);
        tale.tell(on === 'signed' ? 'signed it is' : 'unsigned it is');
        return;
    }
    const file = this.files.find((f) => f.id === on);
    if (!file) return;
    tale.takes(8);
    if (file.kind === 'changed')
      tale.lose('wrote a changed one', { name: file.name }, said('a machine you can trust'));
    else if (file.kind === 'other processor')
      tale.lose('wrote for another processor', { name: file.name }, said('an evening'));
    else {
      if (!this.computed.has(on) || !this.read.has('signed'))
        tale.fault('wrote unchecked', { name: file.name });
      else if (!this.checked.has('signed')) tale.slip('signature not checked');
      tale.reach('wrote the right one', { name: file.name });
    }
  }

  hint() {
    if (!this.checked.has('signed')) return said('hint signature');
    if (!this.read.has('signed')) return said('hint list');
    const open = this.files.find((f) => f.kind !== 'other processor' && !this.computed.has(f.id));
    return open ? said('hint compute', { name: open.name }) : said('hint whole digest');
  }
}

export const threeDownloads: Exercise = {
  id: 'three-downloads',
  stop: 'verify',
  begin: (random) => new ThreeDownloads(random),
};
