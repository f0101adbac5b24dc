import { Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { useWatch } from 'react-hook-form';
import { dropSetting, keepSetting } from '@zb/core/acts/tune';
import type { Box } from '@zb/core/model/bench';
import {
  settingKinds,
  settingPlaces,
  type Setting,
  type SettingKind,
  type TunePlan,
} from '@zb/core/model/tune';
import { settingOfDraft, type SettingDraft } from '@zb/core/model/tuneDraft';
import { settingDefinitions } from '@zb/core/tune/settings';
import { checked } from '../../parts/checked';
import { DraftDialog, useActAndClose } from '../../parts/DraftDialog';
import { useDraftForm } from '../../parts/useDraftForm';
import { stamp } from '../../storage/hooks';
import { Quiet, Word } from '../../ui/Button';
import { FormGrid } from '../../ui/FormGrid';
import { Input, Lines } from '../../ui/Input';
import { Nothing } from '../../ui/Nothing';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Select } from '../../ui/Select';
import { Acts, Data, Sub } from '../../ui/Words';

/** What is set on this box: as it is, as it came, why, and how it is taken back. */
export function SettingsSheet({ box, plan }: { box: Box; plan: TunePlan }) {
  const [open, setOpen] = useState<Setting | 'new' | null>(null);
  return (
    <Stack gap="3">
      {plan.settings.length === 0 ? (
        <Nothing
          title="Nothing is noted yet"
          words="Write down every setting before it is changed: where it lives, and what it stood at."
        />
      ) : (
        <Ruled stacked label="Settings" heads={['Setting', 'Now', 'As it came', 'Why', 'Taken back by']}>
          {plan.settings.map((s) => (
            <Line key={s.id}>
              <LineHead>
                <Word onClick={() => setOpen(s)}>{s.name}</Word>
                <Sub>
                  {settingDefinitions[s.kind].title === s.name ? '' : `${settingDefinitions[s.kind].title}, `}
                  {s.place}
                </Sub>
              </LineHead>
              <Cell>
                <Data>{s.now || s.came || 'not noted'}</Data>
              </Cell>
              <Cell>
                <Data>{s.came || 'not noted'}</Data>
              </Cell>
              <Cell>{s.why || '–'}</Cell>
              <Cell>{s.back || settingDefinitions[s.kind].back || '–'}</Cell>
            </Line>
          ))}
        </Ruled>
      )}
      <Acts>
        <Quiet onClick={() => setOpen('new')}>Note a setting</Quiet>
      </Acts>
      {open !== null && (
        <SettingForm
          box={box}
          plan={plan}
          setting={open === 'new' ? null : open}
          onClose={() => setOpen(null)}
        />
      )}
    </Stack>
  );
}

function SettingForm({
  box,
  plan,
  setting,
  onClose,
}: {
  box: Box;
  plan: TunePlan;
  setting: Setting | null;
  onClose: () => void;
}) {
  const keep = useActAndClose(onClose);
  const [id] = useState(() => setting?.id ?? crypto.randomUUID());
  const draft = useDraftForm<SettingDraft, Setting>({
    values: setting ?? {
      kind: 'power limit',
      name: settingDefinitions['power limit'].title,
      place: 'firmware',
      came: '',
      now: '',
      why: '',
      back: settingDefinitions['power limit'].back,
    },
    resolver: checked<SettingDraft, Setting>(settingOfDraft(id)),
    draft: `setting ${box.id} ${setting?.id ?? 'new'}`,
    ask: false,
    save: (s) => keep(keepSetting(box, s, stamp())),
  });
  const { form } = draft;
  const { errors } = form.formState;
  const kind = useWatch({ control: form.control, name: 'kind' });
  const used = setting && plan.experiments.some((e) => e.changes.includes(setting.id));
  const take = (to: SettingKind): void => {
    const d = settingDefinitions[to];
    form.setValue('name', d.title, { shouldDirty: true });
    form.setValue('place', d.place, { shouldDirty: true });
    form.setValue('back', d.back, { shouldDirty: true });
  };
  return (
    <DraftDialog
      title={setting?.name ?? 'Note a setting'}
      draft={draft}
      remove={
        setting && !used
          ? { words: 'Take it off the sheet', act: () => void keep(dropSetting(box, setting)) }
          : undefined
      }
      onClose={onClose}
    >
      <Stack gap="3">
        {settingDefinitions[kind].caution !== '' && (
          <Said kind="check">{settingDefinitions[kind].caution}</Said>
        )}
        <FormGrid>
          <Select
            label="Kind"
            options={settingKinds.map((k) => ({ value: k, words: settingDefinitions[k].title }))}
            {...form.register('kind', {
              onChange: (e: { target: { value: SettingKind } }) => take(e.target.value),
            })}
          />
          <Input label="Name" error={errors.name?.message} {...form.register('name')} />
          <Select label="Where it lives" options={settingPlaces} {...form.register('place')} />
          <Input
            label="As it came"
            data
            help={
              settingDefinitions[kind].steps.length > 0
                ? `such as ${settingDefinitions[kind].steps.slice(0, 3).join(', ')}`
                : undefined
            }
            error={errors.came?.message}
            {...form.register('came')}
          />
          <Input label="Now" data error={errors.now?.message} {...form.register('now')} />
        </FormGrid>
        <Lines label="Why" rows={2} error={errors.why?.message} {...form.register('why')} />
        <Lines
          label="How it is taken back"
          rows={2}
          error={errors.back?.message}
          {...form.register('back')}
        />
      </Stack>
    </DraftDialog>
  );
}
