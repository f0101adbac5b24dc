/**
 * Machines in network namespaces: a switch, a server and clients with hardware addresses of our choosing, all on this
 * machine and gone afterwards. iproute2, as root.
 */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { run } from './files';

let made = 0;

export interface Lan {
  /** The namespace of a machine, by its name. */
  ns: (name: string) => string;
  /** Adds a machine with a card of this address to the switch; its port is called eth0. */
  add: (name: string, hardware: string) => void;
  /** Runs a command in a machine and answers its standard output; a failing one fails the test. */
  in: (name: string, command: string, args: string[]) => string;
  /** The same, with its exit status. */
  tried: (name: string, command: string, args: string[]) => { status: number | null; out: string };
  /** Starts a server in a machine. */
  serve: (name: string, command: string, args: string[]) => ChildProcess;
  /** Ends a server and waits until it is gone. */
  end: (server: ChildProcess) => Promise<void>;
  clear: () => void;
}

/** A wire that machines hang on. */
export function lan(): Lan {
  const tag = `zb${process.pid % 10_000}n${(made += 1)}`;
  const switchName = `${tag}-sw`;
  const names = new Set<string>();
  const servers = new Set<ChildProcess>();
  const ns = (name: string): string => `${tag}-${name}`;
  run('ip', ['netns', 'add', switchName]);
  run('ip', [
    '-n',
    switchName,
    'link',
    'add',
    'br0',
    'type',
    'bridge',
    'stp_state',
    '0',
    'forward_delay',
    '0',
  ]);
  run('ip', ['-n', switchName, 'link', 'set', 'br0', 'up']);
  const inside = (name: string, command: string, args: string[]): string[] => [
    'netns',
    'exec',
    ns(name),
    command,
    ...args,
  ];
  return {
    ns,
    add(name, hardware) {
      names.add(name);
      run('ip', ['netns', 'add', ns(name)]);
      const wire = `w${names.size}`;
      run('ip', [
        'link',
        'add',
        `${tag}${wire}`,
        'netns',
        switchName,
        'type',
        'veth',
        'peer',
        'name',
        'eth0',
        'netns',
        ns(name),
        'address',
        hardware,
      ]);
      run('ip', ['-n', switchName, 'link', 'set', `${tag}${wire}`, 'master', 'br0', 'up']);
      run('ip', ['-n', ns(name), 'link', 'set', 'lo', 'up']);
      run('ip', ['-n', ns(name), 'link', 'set', 'eth0', 'up']);
    },
    in: (name, command, args) => run('ip', inside(name, command, args)),
    tried(name, command, args) {
      const done = spawnSync('ip', inside(name, command, args), { encoding: 'utf8' });
      return { status: done.status, out: done.stdout };
    },
    serve(name, command, args) {
      const server = spawn('ip', inside(name, command, args), {
        env: { ...process.env },
        stdio: ['ignore', 'ignore', 'inherit'],
      });
      servers.add(server);
      return server;
    },
    end: (server) =>
      new Promise((resolve) => {
        servers.delete(server);
        if (server.exitCode !== null || server.signalCode !== null) return resolve();
        server.on('exit', () => resolve());
        server.kill('SIGTERM');
      }),
    clear() {
      for (const server of servers) server.kill('SIGKILL');
      for (const name of names) spawnSync('ip', ['netns', 'del', ns(name)]);
      spawnSync('ip', ['netns', 'del', switchName]);
    },
  };
}
