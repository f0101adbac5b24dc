import type { Command } from 'commander';

type Register = (zb: Command, print: (value: unknown) => void) => void;

/** Commands by what they are about, in the order in which help names them. */
export const groups: readonly { names: readonly string[]; load: () => Promise<Register> }[] = [
  {
    names: ['survey', 'fit', 'assign', 'lines'],
    load: async () => (await import('./machineCommands')).machineCommands,
  },
  {
    names: ['inspect', 'profile', 'compare', 'check', 'several', 'start'],
    load: async () => (await import('./imageCommands')).imageCommands,
  },
  {
    names: ['table', 'layout', 'rehearse', 'starts', 'claims', 'opening', 'ondrive', 'erase'],
    load: async () => (await import('./driveCommands')).driveCommands,
  },
  {
    names: ['firststart', 'testsheet', 'passphrase', 'strength'],
    load: async () => (await import('./firstStartCommands')).firstStartCommands,
  },
  { names: ['network'], load: async () => (await import('./networkCommands')).networkCommands },
  {
    names: ['pool', 'shares', 'moving', 'content'],
    load: async () => (await import('./keepCommands')).keepCommands,
  },
  { names: ['rules'], load: async () => (await import('./gateCommands')).gateCommands },
  { names: ['guests'], load: async () => (await import('./guestCommands')).guestCommands },
  { names: ['tune'], load: async () => (await import('./tuneCommands')).tuneCommands },
  {
    names: ['runsheet', 'plan', 'diagnose', 'schedule', 'times', 'second', 'practice'],
    load: async () => (await import('./runCommands')).runCommands,
  },
  {
    names: ['sheet', 'keep', 'files', 'retire'],
    load: async () => (await import('./handOverCommands')).handOverCommands,
  },
];

/** Registers the group that has this command, else all of them: what nobody asked for is not even read. */
export async function register(
  zb: Command,
  print: (value: unknown) => void,
  asked: string | undefined,
): Promise<void> {
  const group = groups.filter((g) => asked !== undefined && g.names.includes(asked));
  for (const g of group.length > 0 ? group : groups) (await g.load())(zb, print);
}
