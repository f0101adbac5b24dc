import { judge } from '@zb/core/system/judge';
import { findingWords } from '@zb/core/words/fit/finding';
import { repairWords } from '@zb/core/words/fit/repairs';
import { profilesFromText } from '@zb/core/system/exchange';
import { machineInput } from './fitInput';

/** What `zb fit` prints: each system's verdict for the machine, with its reasons, repairs and cost. */
export function fitOutput(machineText: string, profilesText: string, id?: string) {
  const machine = machineInput(machineText, id);
  const verdicts = profilesFromText(profilesText).map((p) => {
    const { profileId, profile, verdict, binding, missing, release, variant, repairs, cost, likely } = judge(
      machine,
      p,
    );
    const reasons = binding.map((f) => {
      const { because, margin, repair } = findingWords(f);
      return {
        rule: f.rule,
        outcome: f.outcome,
        // The reason as data; because says it.
        reason: f.reason,
        because,
        ...(margin ? { margin } : {}),
        ...(f.soft ? { soft: true } : {}),
        ...(repair ? { repair } : {}),
      };
    });
    return {
      profileId,
      profile,
      verdict,
      likely,
      release: release.version,
      variant: variant.name,
      reasons,
      missing,
      repairs: repairs.map(repairWords),
      cost,
    };
  });
  return { machine: machine.name, verdicts };
}
