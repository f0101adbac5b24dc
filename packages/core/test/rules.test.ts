import fc from 'fast-check';
import { judgeRules, type Judged, type Judgement } from '@zb/core/rules/fates';
import { SELF } from '@zb/core/rules/flatten';
import { routesOf } from '@zb/core/rules/routes';
import { fields, type PacketState, type Ruleset } from '@zb/core/rules/ruleset';
import { walkPacket, type NumberedPacket } from '@zb/core/rules/walk';
import { runs } from './runs';
import { allPackets, SMALL, smallRuleset } from './smallRules';

/** Where a packet comes to in the diagrams. */
function told({ universe, fates }: Judgement, judged: Judged, p: NumberedPacket) {
  const point = [
    universe.interfaces.indexOf(p.iif),
    ...fields.map((f) => universe.classOf(f, BigInt(p[f]))),
    ...universe.flags.map((f) =>
      f.startsWith('rate ')
        ? Number(!p.over.has(f.slice(5)))
        : Number(p.matches.has(f.slice('unknown '.length))),
    ),
  ];
  return fates[universe.forest.at(judged.roots.get(p.state) ?? -1, point)];
}

const STATES: readonly PacketState[] = ['new', 'established', 'invalid'];

describe('every packet of a small header space', () => {
  it('ends in the diagrams as it does when the rules are walked one by one', () => {
    fc.assert(
      fc.property(
        smallRuleset,
        fc.array(fc.nat(7), { minLength: 3, maxLength: 3 }),
        (ruleset: Ruleset, mix) => {
          const judgement = judgeRules([{ ruleset, topology: SMALL }]);
          const [judged] = judgement.judged;
          if (!judged) throw new Error('nothing was judged');
          const routes = routesOf(SMALL);
          const unknowns = judgement.universe.flags.map((f) => f.slice('unknown '.length));
          const matches = new Set(unknowns.filter((_, i) => (mix[i % 3] ?? 0) % 2 === 1));
          for (const state of STATES)
            for (const plain of allPackets(state)) {
              const p = { ...plain, matches };
              const walk = walkPacket(ruleset, routes, p);
              const fate = told(judgement, judged, p);
              if (
                fate?.code !== walk.end ||
                (fate.dnat?.rule ?? null) !== (walk.end === 'passes' ? (walk.translated?.rule ?? null) : null)
              )
                throw new Error(
                  `${JSON.stringify({ ...p, saddr: String(p.saddr), daddr: String(p.daddr) })}: ${JSON.stringify(fate)} against ${walk.end} by ${walk.by}`,
                );
            }
          expect(judged.hit.size).toBeLessThanOrEqual(judged.possible.size);
        },
      ),
      { numRuns: runs(60) },
    );
  });
});
void SELF;
