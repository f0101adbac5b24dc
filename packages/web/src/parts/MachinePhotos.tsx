import { Box, chakra, HStack, Image } from '@chakra-ui/react';
import { X } from 'lucide-react';
import { useState } from 'react';
import { z } from 'zod';
import { addPhoto, removePhoto } from '@zb/core/acts/shelf';
import { photosOf, type Machine } from '@zb/core/model/bench';
import { stamp, useAct, useBench } from '../storage/hooks';
import { IconButton } from '../ui/IconButton';
import { Input } from '../ui/Input';
import { PickFile } from '../ui/PickFile';
import { Said } from '../ui/Said';
import { Head, Sub } from '../ui/Words';
import { checked } from './checked';
import { smallPhoto } from './photo';
import { useDraftForm } from './useDraftForm';

const captionSchema = z.object({ caption: z.string().max(200) });

/** Photographs of the label or the board, kept with the machine. */
export function MachinePhotos({ machine }: { machine: Machine }) {
  const act = useAct();
  const bench = useBench();
  const [problem, setProblem] = useState('');
  const { form, submit } = useDraftForm({
    values: { caption: '' },
    resolver: checked(captionSchema),
    draft: `photo ${machine.id}`,
    ask: false,
    save: () => false,
  });
  const add = async (file: File): Promise<void> => {
    try {
      const data = await smallPhoto(file);
      const caption = form.getValues('caption').trim() || 'Label or board';
      if (await act(addPhoto(machine, caption, data, stamp()))) form.reset();
      setProblem('');
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Box as="section" aria-label="Photographs">
      <Head>Photographs of label and board</Head>
      <HStack align="flex-start" gap="3" flexWrap="wrap" marginBlock="2">
        {photosOf(bench, machine.id).map((p) => (
          <chakra.figure key={p.id}>
            <Image src={p.data} alt={p.caption} maxWidth="field" border="firm" />
            <figcaption>
              <HStack gap="1">
                <Sub>{p.caption}</Sub>
                <IconButton
                  small
                  word={`Remove the photo ${p.caption}`}
                  icon={<X />}
                  onClick={() => void act(removePhoto(p.id))}
                />
              </HStack>
            </figcaption>
          </chakra.figure>
        ))}
      </HStack>
      <HStack asChild gap="2" align="flex-end" maxWidth="form" _print={{ display: 'none' }}>
        <form onSubmit={(e) => void submit(e)}>
          <Input label="What the photo shows" maxLength={200} {...form.register('caption')} />
          <PickFile label="Add a photo" accept={['image/*']} onFile={(f) => void add(f)} />
        </form>
      </HStack>
      {problem !== '' && <Said kind="stop">{problem}</Said>}
    </Box>
  );
}
