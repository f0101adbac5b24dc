import { Stack } from '@chakra-ui/react';
import { decideFate, saveItem } from '@zb/core/acts/shelf';
import type { Store } from '@zb/core/model/bench';
import { fates, type Fate } from '@zb/core/model/content';
import { firmwareKinds, firmwareTitle } from '@zb/core/model/inspection';
import { contentByHand, handKind, learntWords } from '@zb/core/words/content';
import { stamp, useAct } from '../../storage/hooks';
import { Choices } from '../../ui/Choices';
import { Select } from '../../ui/Select';
import { Two } from '../../ui/Two';
import { StoreParts } from '../../parts/StoreParts';
import { TableDump } from './TableDump';

const FATE: Record<Fate, [title: string, means: string]> = {
  keep: ['Keep it', 'Nothing is ever written to it.'],
  'may be lost': ['It may be lost', 'A write may erase all of it.'],
  'not decided': ['Not decided', 'Whatever could erase it stops here first.'],
};

/** What lies on a drive, where that is known from, and whether it may be lost. Each counts at once. */
export function Content({ store }: { store: Store }) {
  const act = useAct();
  const { content } = store;
  const change = (to: Partial<Store>): void => void act(saveItem(store, { ...store, ...to }));
  return (
    <Two gap="5">
      <Stack gap="2">
        <Select
          label="What lies on it"
          value={handKind(content)}
          onChange={(e) => change({ content: contentByHand(e.target.value, content, stamp().now) })}
          help={learntWords(content)}
          options={[
            ...(handKind(content) === 'as learnt' ? [{ value: 'as learnt', words: 'as it was learnt' }] : []),
            'not known',
            { value: 'nothing', words: 'nothing: it is empty' },
            { value: 'data', words: 'data, nothing that starts' },
            ...firmwareKinds.map((f) => ({ value: f, words: `a system that starts by ${firmwareTitle[f]}` })),
          ]}
        />
        {content && content.parts.length > 0 && <StoreParts content={content} />}
        <TableDump
          of={store.id}
          bytes={store.bytes}
          content={content}
          onContent={(learnt) => change({ content: learnt })}
        />
      </Stack>
      <Choices
        label="May what is on it be lost?"
        value={store.fate}
        choices={fates.map((fate) => ({
          value: fate,
          words: (
            <>
              <b>{FATE[fate][0]}.</b> {FATE[fate][1]}
            </>
          ),
        }))}
        onTake={(fate) => void act(decideFate(store, fate))}
      />
    </Two>
  );
}
