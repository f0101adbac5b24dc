import { judge } from '@zb/core/system/judge';
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
    const reasons = binding.map(({ rule, outcome, because, repair, margin, soft }) => ({
      rule,
      outcome,
      because,
      ...(margin ? { margin } : {}),
      ...(soft ? { soft } : {}),
      ...(repair ? { repair } : {}),
    }));
    return {
      profileId,
      profile,
      verdict,
      likely,
      release: release.version,
      variant: variant.name,
      reasons,
      missing,
      repairs: repairs.map((r) => r.text),
      cost,
    };
  });
  return { machine: machine.name, verdicts };
}
