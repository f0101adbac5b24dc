import { urlPart } from '@zb/core/units/url';
import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { beginFromImage } from '@zb/core/acts/profiles';
import { imageHeadline } from '@zb/core/words/image';
import { findImage } from '@zb/core/model/bench';
import { isImage } from '@zb/core/model/shelf';
import NotFound from '../../parts/NotFound';
import { BenchLedger } from '../../parts/BenchLedger';
import { Quiet } from '../../ui/Button';
import { Said } from '../../ui/Said';
import { Sub } from '../../ui/Words';
import { Working } from '../../ui/Working';
import { ImageOpener } from '../../parts/ImageOpener';
import { ImageView } from '../../parts/ImageView';
import { Sheet } from '../../parts/Sheet';
import { forgetWaiting, keepFile, readInTurn, roomNow, useRoom } from '../../parts/room';
import { useImagePlace } from '../../parts/useImagePlace';
import { Shortcuts } from '../../parts/Shortcuts';
import { stamp, useAct, useBench } from '../../storage/hooks';
import { forgetImage } from '../../workers/openImages';
import { Depot } from '../../parts/Depot';
import { ComparePane } from './ComparePane';
import { ListPane } from './ListPane';
import { SeveralPane } from './SeveralPane';
import { ShelfImages } from './ShelfImages';

const PLACE = 'image-room';

/** Images without a box: open one, and see what it is and what it starts on. */
export default function ImageRoomPage() {
  const { imageId } = useParams();
  const bench = useBench();
  const act = useAct();
  const go = useNavigate();
  const place = useImagePlace(PLACE, null);
  const [evidence, setEvidence] = useState(false);
  const [many, setMany] = useState(false);
  const room = useRoom();
  const image = findImage(bench, imageId ?? null);
  const { open } = place;
  const busy = open?.state === 'reading' || open?.state === 'digesting';
  const busyRoom = busy && many;
  const inspection = many
    ? (image?.inspection ?? null)
    : busy || (open?.state === 'cancelled' && !image)
      ? open.inspection
      : (image?.inspection ?? null);
  const back = (): void => {
    forgetImage(PLACE);
    void go('/images');
  };
  if (imageId !== undefined && !image && !busy) return <NotFound what="This image is not on the shelf" />;
  const take = (files: File[]): void => {
    setMany(files.length > 1 || room.waiting.length > 0);
    void readInTurn(files, async (file) => {
      const kept = await place.openFile(file, roomNow().list);
      if (kept) keepFile(kept.id, file);
      if (files.length === 1) show(kept);
    });
  };
  const show = (kept: { id: string } | undefined): void => void (kept && go(`/images/${kept.id}`));
  const begin = async (): Promise<void> => {
    const begun = image && beginFromImage(image, stamp());
    if (begun && (await act(begun))) void go(`/profiles/${urlPart(begun.profile.id)}`);
  };
  const kept = bench.items.filter(isImage);
  return (
    <>
      <Shortcuts
        list={[
          { keys: 'o', does: 'open another image', act: inspection ? back : undefined },
          { keys: 'e', does: 'show or hide the evidence', act: () => setEvidence((v) => !v) },
        ]}
      />
      <Sheet
        title="Image room"
        mid={inspection ? (busy ? open.name : (image?.name ?? open?.name)) : `${kept.length} on the shelf`}
        headline={imageHeadline(busy ? undefined : image, inspection ?? undefined)}
        foot={
          inspection && !busy ? (
            <>
              <Quiet onClick={back}>Open another image</Quiet>
              {image && <Quiet onClick={() => void begin()}>Begin a system from it</Quiet>}
              {image && <Quiet onClick={() => void go(`/images/${image.id}/trial`)}>Start it on trial</Quiet>}
            </>
          ) : undefined
        }
        hint="O opens · E shows the evidence"
      >
        {inspection ? (
          <ImageView
            name={busy ? open.name : (image?.name ?? open?.name ?? '')}
            bytes={inspection.bytes}
            inspection={inspection}
            open={open}
            image={busy ? undefined : image}
            evidence={evidence}
            onEvidence={() => setEvidence((v) => !v)}
            onList={(text, from) => place.compareWith(image, text, from)}
            onCancel={place.cancel}
          >
            {image && !busy && (
              <ComparePane
                key={image.id}
                image={image}
                file={room.files.get(image.id) ?? (open?.name === image.name ? open.file : undefined)}
              />
            )}
          </ImageView>
        ) : (
          <Stack gap="4">
            {open?.state === 'failed' && <Said kind="stop">{open.problem}</Said>}
            {busyRoom && open && (
              <Box>
                <Working
                  label={`Reading ${open.name}`}
                  done={open.done}
                  whole={open.file.size}
                  onCancel={() => {
                    forgetWaiting();
                    place.cancel();
                  }}
                  cancelWord="Cancel all"
                />
                {room.waiting.length > 0 && <Sub>Then {room.waiting.join(', ')}.</Sub>}
              </Box>
            )}
            <ImageOpener several onFiles={take} />
            {kept.length > 0 && (
              <>
                <ShelfImages bench={bench} images={kept} onOpen={(id) => void go(`/images/${id}`)} />
                <ListPane images={kept} />
                {kept.length > 1 && <SeveralPane bench={bench} images={kept} />}
              </>
            )}
            <Depot open={kept.length === 0} onDepot={(d, p) => place.openDepot(d, p).then(show)} />
          </Stack>
        )}
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
