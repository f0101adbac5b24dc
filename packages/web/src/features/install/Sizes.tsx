import { z } from 'zod';
import { decideLayout } from '@zb/core/acts/install';
import type { Box } from '@zb/core/model/bench';
import { startsMachine, type BoxLayout, type LayoutPlan, type WantSize } from '@zb/core/model/layout';
import { readSize, writeSize } from '@zb/core/units/typedSize';
import { formatPercent } from '@zb/core/units/number';
import { sizeProblem } from '@zb/core/words/typedSize';
import { OneFact } from '../../parts/OneFact';
import { useAct } from '../../storage/hooks';
import { Word } from '../../ui/Button';
import { FormGrid } from '../../ui/FormGrid';
import { Head } from '../../ui/Words';

/** A size as a part takes it: a length, or the rest. */
const sizeSchema = z.string().transform((text, context): WantSize => {
  const size = readSize(text, true);
  if ('problem' in size) {
    context.addIssue({ code: 'custom', message: sizeProblem(size.problem) });
    return z.NEVER;
  }
  return 'rest' in size ? { kind: 'rest' } : { kind: 'fixed', bytes: size.bytes };
});

const shown = (size: WantSize): string =>
  size.kind === 'rest'
    ? 'the rest'
    : size.kind === 'share'
      ? formatPercent(size.share)
      : writeSize(size.bytes);

/** Sizes of the parts as a person wants them; each is kept when its field is left. */
export function Sizes({ box, plan, decided }: { box: Box; plan: LayoutPlan; decided: BoxLayout }) {
  const act = useAct();
  const own = plan.want.wants.filter((w) => !startsMachine(w));
  return (
    <>
      <Head>
        Sizes{' '}
        {Object.keys(decided.sizes).length > 0 && (
          <Word onClick={() => void act(decideLayout(box, { sizes: {} }, 'Usual sizes again'))}>
            the usual ones again
          </Word>
        )}
      </Head>
      <FormGrid css={{ gridTemplateColumns: 'repeat(auto-fill, minmax(120px, 1fr))' }}>
        {own.map((w) => (
          <OneFact
            key={w.id}
            label={w.name}
            value={shown(w.size)}
            schema={sizeSchema}
            onKeep={(size) =>
              act(
                decideLayout(box, { sizes: { ...decided.sizes, [w.id]: size } }, `Size of ${w.name} changed`),
              )
            }
          />
        ))}
      </FormGrid>
    </>
  );
}
