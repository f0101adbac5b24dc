import { useRef } from 'react';
import { z } from 'zod';
import { depotFileSchema, type DepotFile } from '@zb/core/model/standIns';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { recordImage } from '@zb/core/acts/box';
import { algorithmsWanted, compareDigests } from '@zb/core/checksum/compare';
import { parseChecksumList } from '@zb/core/formats/checksumList';
import { findBox, type Bench, type ImageItem } from '@zb/core/model/bench';
import { BENCH_KEY } from '../storage/benchStore';
import { stamp, useAct } from '../storage/hooks';
import { cancelDigest, openImage, openImageAt, useOpenImage, type OpenImage } from '../workers/openImages';
import { fetchFile, getJson, getText } from './api';

export const useDepot = () =>
  useQuery({
    queryKey: ['depot'],
    queryFn: () => getJson('/api/depot', z.array(depotFileSchema)),
    retry: false,
    staleTime: 60_000,
  });

/** Opening, digesting and comparing an image in one place: a box's Verify stop or the image room. */
export function useImagePlace(place: string, boxId: string | null) {
  const act = useAct();
  const client = useQueryClient();
  const open = useOpenImage(place);
  const fetching = useRef<AbortController | null>(null);
  // The bench may have changed while a long file was read, so it is looked up when it is needed.
  const bench = (): Bench | null | undefined => client.getQueryData<Bench | null>(BENCH_KEY);

  const keep = async (
    result: OpenImage | undefined,
    listText: string | null,
    from: string,
  ): Promise<ImageItem | undefined> => {
    const now = bench();
    if (!result?.inspection || !now) return undefined;
    const s = stamp();
    const list = listText === null ? undefined : parseChecksumList(listText);
    const comparison =
      list && result.state === 'done'
        ? (compareDigests(
            {
              name: result.name,
              bytes: result.file.size,
              digests: result.digests,
              container: result.inspection.container,
            },
            list,
            from,
            s.now,
          ) ?? null)
        : null;
    const hash =
      result.state === 'done' ? { digests: result.digests, comparison, seconds: result.seconds } : null;
    const done = recordImage(
      now,
      boxId === null ? undefined : findBox(now, boxId),
      { name: result.name, bytes: result.file.size, depotFile: result.depotFile },
      result.inspection,
      hash,
      s,
    );
    await act(done);
    return done.image;
  };

  /** Opens a file; a list that lies open already is what it is held against. */
  const openFile = async (
    file: File,
    list?: { text: string; from: string } | null,
  ): Promise<ImageItem | undefined> => {
    const wanted = algorithmsWanted(list ? parseChecksumList(list.text) : undefined, file.name);
    return keep(await openImage(place, file, null, wanted), list?.text ?? null, list?.from ?? '');
  };

  const openDepot = async (
    entry: DepotFile,
    onProgress: (bytes: number) => void,
  ): Promise<ImageItem | undefined> => {
    fetching.current?.abort();
    fetching.current = new AbortController();
    const [file, sums] = await Promise.all([
      fetchFile(`/api/depot/${entry.file}`, entry.file, onProgress, fetching.current.signal),
      getText('/api/depot/SHA256SUMS'),
    ]);
    const wanted = algorithmsWanted(parseChecksumList(sums), entry.file);
    return keep(await openImage(place, file, entry.file, wanted), sums, 'SHA256SUMS of the depot');
  };

  /** Compares with a list; answers words for the user where it cannot, else null. */
  const compareWith = (image: ImageItem | undefined, text: string, from: string): string | null => {
    const now = bench();
    if (!image || !now) return 'Open an image first.';
    const list = parseChecksumList(text);
    if (list.sums.length === 0)
      return 'No checksum is in this text: MD5 has 32 hexadecimal digits, SHA-1 40, SHA-256 64, SHA-512 128. Nothing was changed.';
    const s = stamp();
    const comparison = compareDigests(
      { ...image, container: image.inspection?.container },
      list,
      from,
      s.now,
    );
    const here = openImageAt(place);
    if (!comparison) {
      const algorithm = algorithmsWanted(list, image.name);
      if (!here || here.name !== image.name)
        return `The list is in ${algorithm.slice(1).join(', ').toUpperCase()}, which was not computed. Open the file again and compare then.`;
      void openImage(place, here.file, here.depotFile, algorithm).then((r) => keep(r, text, from));
      return null;
    }
    const inspection = image.inspection;
    if (!inspection) return 'Open the image again first.';
    const seconds = here?.state === 'done' && here.name === image.name ? here.seconds : 0;
    void act(
      recordImage(
        now,
        boxId === null ? undefined : findBox(now, boxId),
        image,
        inspection,
        { digests: image.digests, comparison, seconds },
        s,
      ),
    );
    return null;
  };

  return { open, openFile, openDepot, compareWith, cancel: () => cancelDigest(place) };
}
