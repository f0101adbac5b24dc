import { boxAdvice } from '@zb/core/starting/forBox';
import { copyWords, modeCard, tableWords } from '@zb/core/words/forBox';
import type { ImageReading } from '@zb/core/model/inspection';
import type { Machine } from '@zb/core/model/bench';
import { Mark } from './Marks';

const KIND = { 'whole image': 'yes', 'file copy': 'change', neither: 'stop' } as const;
const WORD = {
  'whole image': 'copy the whole image',
  'file copy': 'copy its files',
  neither: 'not from a stick',
} as const;

/** How to bring the image onto a stick for the machine of this box, and the card that explains its firmware mode. */
export function ForBox({ machine, reading }: { machine: Machine; reading: ImageReading }) {
  const advice = boxAdvice(machine, reading);
  const mode = modeCard(machine, advice);
  return (
    <section aria-label={`For ${machine.name}`}>
      <h2 className="h6">For {machine.name}</h2>
      <p>
        <Mark kind={KIND[advice.copy]}>{WORD[advice.copy]}</Mark> <span>{copyWords(advice.reason)}</span>
      </p>
      <p className="sub">{tableWords[advice.table]}</p>
      <details className="why">
        <summary>{mode.title}</summary>
        {mode.lines.map((line) => (
          <p key={line} className="sub">
            {line}
          </p>
        ))}
      </details>
    </section>
  );
}
