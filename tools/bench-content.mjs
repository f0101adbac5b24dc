// A folder of 200,000 files looked through, against find -printf over the same folder; and how much memory it takes.
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const FILES = 200_000;
const ASKED = 60;
const MEMORY_MB = 700;

/** `dir`: a folder for what is made; `root`: the repository. */
export async function benchContent(dir, root) {
  const top = mkdtempSync(join(dir, 'content-'));
  for (let i = 0; i < FILES; i += 1) {
    const folder = join(top, `band ${i % 400}`, `album ${i % 7}`);
    if (i < 2800) mkdirSync(folder, { recursive: true });
    writeFileSync(join(folder, `${String((i % 20) + 1).padStart(2, '0')} song ${i}.flac`), '');
  }
  const timed = (command, args) => {
    const since = performance.now();
    const done = spawnSync(command, args, { stdio: ['ignore', 'pipe', 'inherit'], maxBuffer: 1 << 30 });
    if (done.status !== 0) throw new Error(`${command} ended with ${done.status}`);
    return { seconds: (performance.now() - since) / 1000, text: done.stdout.toString() };
  };
  const ratios = [];
  for (let run = 0; run < 3; run += 1) {
    const find = timed('find', [top, '-type', 'f', '-printf', '%P\\t%s\\t%T@\\n']);
    const ours = timed(process.execPath, [
      `${root}packages/cli/dist/zb.mjs`,
      'content',
      top,
      '--purpose',
      'music',
    ]);
    if (JSON.parse(ours.text).files !== FILES) throw new Error('not all files were seen');
    ratios.push(ours.seconds / find.seconds);
    console.log(
      `run ${run + 1}: find ${find.seconds.toFixed(2)} s, looked through ${ours.seconds.toFixed(2)} s`,
    );
  }
  ratios.sort((a, b) => a - b);
  console.log(
    `${FILES} files: ${ratios[1].toFixed(1)} times as long as find -printf (median of 3; aim: under ${ASKED})`,
  );
  const said = execFileSync('sh', [
    '-c',
    `/usr/bin/env time -v "$0" "$1" content "$2" --purpose music 2>&1 >/dev/null || true`,
    process.execPath,
    `${root}packages/cli/dist/zb.mjs`,
    top,
  ]).toString();
  const kb = Number(/Maximum resident set size \(kbytes\): (\d+)/.exec(said)?.[1] ?? 0);
  if (kb > 0) console.log(`memory at most ${(kb / 1024).toFixed(0)} MiB (aim: under ${MEMORY_MB})`);
  rmSync(top, { recursive: true, force: true });
}
