import type { GatePlan } from '../../model/gate';
import type { Host, Network } from '../../model/network';
import { compileGate } from '../compile';
import { gateNames } from './names';
import { writeNft } from './nft';
import { rollbackScript } from './rollback';
import { sysctlLines } from './sysctl';
import { gateMarkdown } from './markdown';

/** What a gate is given. */
export const gateForms = ['rollback', 'nft', 'dnsmasq', 'sysctl', 'md'] as const;
/** One of them. */
export type GateForm = (typeof gateForms)[number];

/** What each is called as a file. */
export const gateFile: Record<GateForm, string> = {
  rollback: 'rules.sh',
  nft: 'rules.nft',
  dnsmasq: 'names.conf',
  sysctl: '90-gate.conf',
  md: 'rules.md',
};

/** One form of a plan as text. */
export function writeGate(
  form: GateForm,
  plan: GatePlan,
  networks: readonly Network[],
  hosts: readonly Host[],
): string {
  switch (form) {
    case 'rollback':
      return rollbackScript(compileGate(plan, networks), plan);
    case 'nft':
      return writeNft(compileGate(plan, networks), plan);
    case 'dnsmasq':
      return gateNames(plan, networks, hosts);
    case 'sysctl':
      return sysctlLines(plan);
    case 'md':
      return gateMarkdown(plan, networks);
  }
}
