import { useState } from 'react';
import { overrule, takeBackOverrule } from '@zb/core/acts/wishes';
import type { RuleFinding } from '@zb/core/system/finding';
import type { Judgement } from '@zb/core/system/judge';
import { overruleKey } from '@zb/core/system/wishRules';
import type { Machine, Profile, Wish } from '@zb/core/model/bench';
import { findingWords } from '@zb/core/words/fit/finding';
import { stamp, useAct } from '../storage/hooks';
import { FindingList } from './FindingList';
import { Overrule } from './Overrule';

/** The deciding findings of a judgement, with soft limits set aside and taken back in place. */
export function Findings({
  machine,
  profile,
  judged,
  wish,
  boxId = null,
  answers = false,
}: {
  machine: Machine;
  profile: Profile;
  judged: Judgement;
  wish?: Wish;
  boxId?: string | null;
  /** Links each open question to the machine's sheet. */
  answers?: boolean;
}) {
  const act = useAct();
  const [overruling, setOverruling] = useState<RuleFinding | null>(null);
  const of = (f: RuleFinding): { key: string; name: string } =>
    f.ofWish && wish ? { key: overruleKey(wish), name: wish.name } : { key: profile.id, name: profile.name };
  return (
    <>
      <FindingList
        judged={judged}
        {...(answers ? { machineId: machine.id } : {})}
        onOverrule={setOverruling}
        onTakeBack={(f) => void act(takeBackOverrule(machine, of(f).key, f.rule))}
      />
      {overruling && (
        <Overrule
          title={overruling.rule}
          because={findingWords(overruling).because}
          onClose={() => setOverruling(null)}
          onOverrule={(reason) => {
            void act(overrule(machine, of(overruling), overruling.rule, reason, boxId, stamp()));
            setOverruling(null);
          }}
        />
      )}
    </>
  );
}
