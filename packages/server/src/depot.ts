import { createHash } from 'node:crypto';
import { mkdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brokenDownload, depotImages } from '@zb/core/compose/depot';

export interface DepotFile {
  file: string;
  title: string;
  about: string;
  profile: string | null;
  bytes: number;
  path: string;
}

/** The stand-in depot: demo images made once into the data folder, and the checksum list that belongs to them. */
export class Depot {
  readonly files: DepotFile[] = [];
  /** GNU format, one line each. The broken download is listed with the sum of the whole image, as published. */
  readonly sums: string;

  constructor(dataDir: string) {
    const dir = join(dataDir, 'depot');
    mkdirSync(dir, { recursive: true });
    const lines: string[] = [];
    for (const image of depotImages) {
      const bytes = image.build();
      const hex = createHash('sha256').update(bytes).digest('hex');
      lines.push(`${hex}  ${image.file}`);
      this.add(dir, image.file, image.title, image.about, image.profile, bytes);
      if (image.file === brokenDownload.of) {
        lines.push(`${hex}  ${brokenDownload.file}`);
        this.add(
          dir,
          brokenDownload.file,
          brokenDownload.title,
          brokenDownload.about,
          null,
          brokenDownload.spoil(bytes),
        );
      }
    }
    this.sums = lines.join('\n') + '\n';
  }

  private add(
    dir: string,
    file: string,
    title: string,
    about: string,
    profile: string | null,
    bytes: Uint8Array,
  ): void {
    const path = join(dir, file);
    const fresh = (() => {
      try {
        return statSync(path).size === bytes.length && readFileSync(path).equals(bytes);
      } catch {
        return false;
      }
    })();
    if (!fresh) writeFileSync(path, bytes);
    this.files.push({ file, title, about, profile, bytes: bytes.length, path });
  }

  find(file: string): DepotFile | undefined {
    return this.files.find((f) => f.file === file);
  }
}
