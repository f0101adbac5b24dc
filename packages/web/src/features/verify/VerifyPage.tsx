import { useState } from 'react';
import { firmwareOf } from '@zb/core/machine/firmware';
import { knownFact } from '@zb/core/model/known';
import { verifyHeadline } from '@zb/core/words/image';
import { callIt } from '@zb/core/acts/profiles';
import { findImage, findProfile } from '@zb/core/model/bench';
import { contentOf } from '@zb/core/model/inspection';
import { unsettledName } from '@zb/core/system/fromImage';
import { updateBox } from '@zb/core/acts/box';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { Quiet } from '../../ui/Button';
import { Depot } from '../../parts/Depot';
import { ImageOpener } from '../../parts/ImageOpener';
import { ImageView } from '../../parts/ImageView';
import { useImagePlace } from '../../parts/useImagePlace';
import { useAct } from '../../storage/hooks';
import { forgetImage } from '../../workers/openImages';

function VerifyPage({ context }: { context: BoxContext }) {
  const { bench, box, machine } = context;
  const act = useAct();
  const place = useImagePlace(box.id, box.id);
  const [evidence, setEvidence] = useState(false);
  const image = findImage(bench, box.imageId);
  const { open } = place;
  const busy = open?.state === 'reading' || open?.state === 'digesting';
  const inspection =
    busy || open?.state === 'cancelled' ? open.inspection : (image?.inspection ?? open?.inspection ?? null);
  const shown = inspection
    ? { name: busy ? open.name : (image?.name ?? open?.name ?? ''), bytes: inspection.bytes }
    : undefined;
  const profile = findProfile(bench, box.profileId);
  const seen = image?.inspection && contentOf(image.inspection);
  const calls = profile && seen ? unsettledName(profile, seen.identity) : undefined;
  const another = (): void => {
    forgetImage(box.id);
    void act(updateBox(box, { imageId: null }, 'Image set aside'));
  };
  const others = bench.items.filter((i) => i.kind === 'image' && i.id !== box.imageId);
  const grid = machine && {
    name: machine.name,
    firmware: firmwareOf(machine),
    secureBoot: knownFact(machine, 'firmware.secureBoot')?.value === 'on',
  };
  return (
    <BoxFrame
      context={context}
      stop="verify"
      headline={verifyHeadline(machine, busy ? undefined : image, inspection ?? undefined)}
      signWords="Sign off and choose a stick"
      hint="Space signs off · O opens · E shows the evidence"
      keys={{ o: shown ? another : undefined, e: () => setEvidence((v) => !v) }}
      acts={shown && !busy && <Quiet onClick={another}>Open another image</Quiet>}
    >
      {shown && inspection ? (
        <ImageView
          {...shown}
          inspection={inspection}
          open={open}
          image={busy ? undefined : image}
          machine={grid}
          boxMachine={machine}
          evidence={evidence}
          onEvidence={() => setEvidence((v) => !v)}
          onList={(text, from) => place.compareWith(image, text, from)}
          onCancel={place.cancel}
        >
          {profile && calls !== undefined && !busy && (
            <p className="said">
              It calls itself “{calls}”.{' '}
              <Quiet onClick={() => void act(callIt(profile, calls))}>That is {profile.name}</Quiet>
            </p>
          )}
        </ImageView>
      ) : (
        <div className="stack">
          {open?.state === 'failed' && (
            <p className="said said-stop" role="alert">
              {open.problem}
            </p>
          )}
          {open?.state === 'reading' && <p>Reading {open.name}…</p>}
          <ImageOpener onFiles={([f]) => f && void place.openFile(f)} />
          <Depot open onDepot={place.openDepot} />
          {others.length > 0 && (
            <div>
              <h2 className="h6">Already on the shelf</h2>
              {others.map((i) => (
                <p key={i.id}>
                  <button
                    type="button"
                    className="link"
                    onClick={() =>
                      void act(updateBox(box, { imageId: i.id }, `${i.name} taken for this box`))
                    }
                  >
                    {i.name}
                  </button>
                </p>
              ))}
            </div>
          )}
        </div>
      )}
    </BoxFrame>
  );
}

export default withBox(VerifyPage);
