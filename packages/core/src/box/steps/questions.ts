import { hostsOfBox } from '../../model/bench';
import type { InstallerQuestion } from '../../model/installer';
import { step, type Must, type StepDraft } from '../../runsheet/step';
import type { Scene } from '../scene';

/** What is to be typed at a question of the installer, as far as it is decided; null where nobody has said. */
function answerTo({ bench, box }: Scene, question: InstallerQuestion): string | null {
  const [host] = hostsOfBox(bench, box.id);
  switch (question) {
    case 'address':
      return host?.address ?? null;
    case 'host name':
      return host?.label ?? null;
    case 'edition':
      return box.first?.set['set of software'] ?? null;
    // It is never kept here.
    case 'password':
    case 'disk':
      return null;
    default:
      return box.first?.set[question] ?? null;
  }
}

/** The questions of this installer as steps, at the moment it asks them: before its list of drives, and after it. */
export function questions(scene: Scene): { before: StepDraft[]; after: StepDraft[] } {
  const asks = scene.profile?.manner.asks ?? [];
  const disk = asks.indexOf('disk');
  let previous = 'start:go';
  const all = asks.map((question, i): StepDraft | null => {
    if (question === 'disk') {
      previous = 'inst:drive';
      return null;
    }
    const key = `inst:ask:${question}`;
    const after = [
      previous,
      ...(disk >= 0 && i > disk ? ['inst:layout'] : []),
      ...(question === 'address' ? ['net:free:*'] : []),
    ];
    previous = key;
    const must: Must[] =
      question === 'address' ? [{ code: 'address is settled', of: scene.box.name, id: scene.box.id }] : [];
    return step(
      'install',
      key,
      { code: 'answer', question, value: answerTo(scene, question) },
      { after, must, asks: question === 'password' ? null : 'words' },
    );
  });
  const steps = (from: number, to: number): StepDraft[] => all.slice(from, to).filter((s) => s !== null);
  return disk < 0
    ? { before: steps(0, all.length), after: [] }
    : { before: steps(0, disk), after: steps(disk, all.length) };
}
