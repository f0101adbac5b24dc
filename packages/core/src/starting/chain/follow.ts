import type { StartVerdict } from '../../image/verdict';
import type { UefiArch } from '../../image/loaders';
import type { ImageFacts } from '../../image/read';
import type { Rung, Outcome } from '../../model/inspection';
import { boardChain } from './board';
import { grubChain, kernelChain, opticalLoaderChain, stageChain } from './bios';
import { followEfi } from './efi';
import { chainVolumes, unnamed } from './volumes';

/** The firmware that starts the image, and what the image is attached as. */
export interface ChainRow {
  arch: UefiArch | undefined;
  attached: Outcome['attached'];
}

/** The rungs behind what a firmware starts; none where nothing is started. */
async function rungsOf(
  facts: ImageFacts,
  { arch, attached }: ChainRow,
  verdict: StartVerdict,
): Promise<Rung[]> {
  const { begins } = verdict;
  switch (begins?.by) {
    case undefined:
      return [];
    case 'efi': {
      if (!arch) return [];
      const volumes = chainVolumes(facts);
      const { volume, path } = begins;
      const named = volumes.find(
        (v) => volume.from !== 'catalogue' && v.place.of !== 'optical volume' && v.start === volume.base,
      );
      const own = named ?? unnamed(volume.place, volume.fat, volume.base);
      return followEfi({ source: facts.source, volumes, arch, attached }, { volume: own, path });
    }
    case 'grub':
      return grubChain(begins);
    case 'stage file':
      return stageChain(begins);
    case 'optical loader':
      return opticalLoaderChain(begins);
    case 'kernel':
      return kernelChain(begins);
    case 'board':
      return boardChain(facts.source, begins);
  }
}

/** A verdict with the chain behind it: what breaks starts nothing, and what cannot be read leaves it open. */
export async function withChain<V extends StartVerdict>(
  facts: ImageFacts,
  row: ChainRow,
  verdict: V,
): Promise<Omit<V, 'begins'> & { chain: Rung[] }> {
  const chain = await rungsOf(facts, row, verdict);
  const { begins: _, ...plain } = verdict;
  const missing = chain.find((r) => r.state === 'missing');
  const open = chain.find((r) => r.state === 'unreadable');
  const breaks = missing ?? (verdict.starts === 'yes' ? open : undefined);
  if (!breaks) return { ...plain, chain };
  return {
    ...plain,
    starts: missing ? 'no' : 'unknown',
    reason: { code: missing ? 'nothing to load' : 'chain not told', rung: breaks.rung, why: breaks.why },
    evidence: [...verdict.evidence, ...breaks.evidence],
    chain,
  };
}
