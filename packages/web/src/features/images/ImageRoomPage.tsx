import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { verdictWords } from '@zb/core/checksum/compare';
import { imageHeadline } from '@zb/core/image/headline';
import { findImage } from '@zb/core/schema/bench';
import { isImage } from '@zb/core/schema/shelf';
import { formatIec } from '@zb/core/units/bytes';
import NotFound from '../../parts/NotFound';
import { BenchLedger } from '../../parts/BenchLedger';
import { Quiet } from '../../parts/Button';
import { ImageOpener } from '../../parts/ImageOpener';
import { ImageView } from '../../parts/ImageView';
import { Sheet } from '../../parts/Sheet';
import { useImagePlace } from '../../parts/useImagePlace';
import { useKeys } from '../../parts/useKeys';
import { useBench } from '../../storage/hooks';
import { forgetImage } from '../../workers/openImages';

const PLACE = 'image-room';

/** Images without a box: open one, and see what it is and what it starts on. */
export default function ImageRoomPage() {
  const { imageId } = useParams();
  const bench = useBench();
  const go = useNavigate();
  const place = useImagePlace(PLACE, null);
  const [evidence, setEvidence] = useState(false);
  const image = findImage(bench, imageId ?? null);
  const { open } = place;
  const busy = open?.state === 'reading' || open?.state === 'digesting';
  const inspection =
    busy || (open?.state === 'cancelled' && !image) ? open.inspection : (image?.inspection ?? null);
  const back = (): void => {
    forgetImage(PLACE);
    void go('/images');
  };
  useKeys({ o: inspection ? back : undefined, e: () => setEvidence((v) => !v) });
  if (imageId !== undefined && !image && !busy) return <NotFound what="This image is not on the shelf" />;
  const show = (kept: { id: string } | undefined): void => void (kept && go(`/images/${kept.id}`));
  const kept = bench.items.filter(isImage);
  return (
    <>
      <Sheet
        title="Image room"
        mid={inspection ? (busy ? open.name : (image?.name ?? open?.name)) : `${kept.length} on the shelf`}
        headline={imageHeadline(busy ? undefined : image, inspection ?? undefined)}
        foot={inspection && !busy ? <Quiet onClick={back}>Open another image</Quiet> : undefined}
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
          />
        ) : (
          <div className="stack">
            {open?.state === 'failed' && (
              <p className="said said-stop" role="alert">
                {open.problem}
              </p>
            )}
            <ImageOpener
              onFile={(f) => void place.openFile(f).then(show)}
              onDepot={(d, p) => place.openDepot(d, p).then(show)}
            />
            {kept.length > 0 && (
              <table className="t">
                <thead>
                  <tr>
                    <th scope="col">On the shelf</th>
                    <th scope="col" className="num">
                      Size
                    </th>
                    <th scope="col">Layout</th>
                    <th scope="col">Compared</th>
                  </tr>
                </thead>
                <tbody>
                  {kept.map((i) => (
                    <tr key={i.id}>
                      <th scope="row">
                        <button type="button" className="link" onClick={() => void go(`/images/${i.id}`)}>
                          {i.name}
                        </button>
                      </th>
                      <td className="num">{formatIec(i.bytes)}</td>
                      <td>{i.inspection?.layout}</td>
                      <td>{i.comparison ? verdictWords[i.comparison.verdict] : 'not yet'}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
          </div>
        )}
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
