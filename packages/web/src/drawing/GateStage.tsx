import { chakra } from '@chakra-ui/react';
import type { GatePlan } from '@zb/core/model/gate';
import type { Asked } from '@zb/core/rules/ask';
import { endWords, fromWords, kindWords } from '@zb/core/words/packet';

const HIGH = 92;

/** A packet before, at and behind the gate: let through, or stopped there, with its answer under it. */
export function GateStage({ plan, asked }: { plan: GatePlan; asked: Asked }) {
  const { packet, walk, answer } = asked;
  const through = walk.end === 'passes';
  const from = fromWords(plan, packet.iif);
  const to = walk.out === null ? 'the gate' : walk.out === undefined ? 'nowhere' : fromWords(plan, walk.out);
  const atGate = through && walk.out === null;
  const end = through && !atGate ? 560 : 332;
  return (
    <chakra.svg
      viewBox={`0 0 640 ${HIGH}`}
      width="full"
      role="img"
      aria-label={`${from}: ${kindWords(packet)} ${endWords(plan, walk)}${answer ? `; its answer ${endWords(plan, answer.walk)}` : ''}`}
      css={{ maxWidth: '640px', '& text': { font: 'inherit', fontSize: '13px', fill: 'currentColor' } }}
    >
      <text x="0" y="18">
        {from}
      </text>
      <text x="340" y="18" textAnchor="middle">
        the gate
      </text>
      <text x="640" y="18" textAnchor="end">
        {through && !atGate ? to : ''}
      </text>
      <rect
        x="332"
        y="26"
        width="16"
        height={HIGH - 30}
        fill="none"
        stroke="currentColor"
        strokeWidth="1.5"
      />
      <line x1="0" x2={end} y1="44" y2="44" stroke="currentColor" strokeWidth="2" />
      <path d={`M${end} 44 l-8 -5 v10 z`} fill="currentColor" />
      {!through && (
        <path d="M326 36 l12 16 m0 -16 l-12 16" stroke="currentColor" strokeWidth="2.5" fill="none" />
      )}
      <text x="8" y="38">
        {kindWords(packet)}
      </text>
      {answer && (
        <>
          <line x1={end} x2="0" y1="70" y2="70" stroke="currentColor" strokeWidth="2" strokeDasharray="5 4" />
          <path d="M0 70 l8 -5 v10 z" fill="currentColor" />
          <text x="12" y="86">
            its answer
          </text>
        </>
      )}
    </chakra.svg>
  );
}
