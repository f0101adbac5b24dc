/** Commands are read by the group that has them: a name that is missing there would not be found. */
import { Command } from 'commander';
import { groups, register } from '../src/groups';

const namesOf = (zb: Command): string[] => zb.commands.map((c) => c.name());

describe('groups of commands', () => {
  it('name exactly the commands they bring, each once', async () => {
    for (const { names, load } of groups) {
      const zb = new Command('zb');
      (await load())(zb, () => undefined);
      expect(namesOf(zb)).toEqual(names);
    }
    const all = groups.flatMap((g) => g.names);
    expect(new Set(all).size).toBe(all.length);
  });

  it.each([
    ['tune', ['tune']],
    ['retire', ['sheet', 'keep', 'files', 'retire']],
    ['no-such', groups.flatMap((g) => g.names)],
    [undefined, groups.flatMap((g) => g.names)],
  ])('asked for %s, there is what help names', async (asked, names) => {
    const zb = new Command('zb');
    await register(zb, () => undefined, asked);
    expect(namesOf(zb)).toEqual(names);
  });
});
