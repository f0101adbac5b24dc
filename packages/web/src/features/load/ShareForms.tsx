import { Stack } from '@chakra-ui/react';
import { Controller } from 'react-hook-form';
import { editSharing } from '@zb/core/acts/storage';
import type { Bench, Box as Build } from '@zb/core/model/bench';
import {
  shareProtocols,
  type FolderLink,
  type SharedFolder,
  type ShareUser,
  type Sharing,
} from '@zb/core/model/sharing';
import {
  folderDraftOf,
  folderOfDraft,
  foundSchema,
  linkOfDraft,
  userOfDraft,
  type FolderDraft,
  type FoundDraft,
  type LinkDraft,
  type UserDraft,
} from '@zb/core/model/sharingDraft';
import type { BoxSharing } from '@zb/core/storage/share/forBox';
import { withItem, withoutItem } from '@zb/core/units/list';
import { protocolWords } from '@zb/core/words/sharing';
import { useState } from 'react';
import { checked } from '../../parts/checked';
import { DraftDialog, useActAndClose } from '../../parts/DraftDialog';
import { useDraftForm } from '../../parts/useDraftForm';
import { Checkbox } from '../../ui/Checkbox';
import { FormGrid } from '../../ui/FormGrid';
import { Input } from '../../ui/Input';
import { Select } from '../../ui/Select';
import { Head } from '../../ui/Words';

interface Of {
  bench: Bench;
  box: Build;
  onClose: () => void;
}

/** Keeps a change of the sharing, and closes where it was kept. */
function useKeep({ bench, box, onClose }: Of) {
  const keep = useActAndClose(onClose);
  return (changed: Partial<Sharing>, label: string): Promise<boolean> =>
    keep(editSharing(bench, box, changed, label));
}

/** A folder: its name, where it lies, how it is reached. */
export function FolderForm({ folder, ...of }: Of & { folder: SharedFolder }) {
  const keep = useKeep(of);
  const folders = of.box.sharing?.folders ?? [];
  const there = folders.some((f) => f.id === folder.id);
  const draft = useDraftForm<FolderDraft, SharedFolder>({
    values: folderDraftOf(folder),
    resolver: checked<FolderDraft, SharedFolder>(folderOfDraft(folder)),
    draft: `folder ${of.box.id} ${there ? folder.id : 'new'}`,
    ask: false,
    save: (f) => keep({ folders: withItem(folders, f) }, `Folder “${f.name}” ${there ? 'saved' : 'shared'}`),
  });
  const { form } = draft;
  const { errors } = form.formState;
  return (
    <DraftDialog
      title={there ? folder.name : 'A folder that others reach'}
      draft={draft}
      remove={
        there
          ? {
              words: 'Share it no longer',
              act: () =>
                void keep(
                  { folders: withoutItem(folders, folder.id) },
                  `Folder “${folder.name}” no longer shared`,
                ),
            }
          : undefined
      }
      onClose={of.onClose}
    >
      <FormGrid>
        <Input label="Name" error={errors.name?.message} {...form.register('name')} />
        <Input label="Where it lies" data error={errors.path?.message} {...form.register('path')} />
        <Input
          label="Bin, days"
          data
          help="what is deleted over SMB is kept so long; empty: no bin"
          error={errors.binDays?.message}
          {...form.register('binDays')}
        />
        <Controller
          control={form.control}
          name="protocols"
          render={({ field }) => (
            <Stack gap="1">
              <Head>Reached over</Head>
              {shareProtocols.map((p) => (
                <Checkbox
                  key={p}
                  checked={field.value.includes(p)}
                  onChange={(on) =>
                    field.onChange(shareProtocols.filter((q) => (q === p ? on : field.value.includes(q))))
                  }
                >
                  {protocolWords(p)}
                </Checkbox>
              ))}
            </Stack>
          )}
        />
        <Controller
          control={form.control}
          name="oneCase"
          render={({ field }) => (
            <Checkbox checked={field.value} onChange={field.onChange}>
              names that differ by case are one, as other systems have it
            </Checkbox>
          )}
        />
      </FormGrid>
    </DraftDialog>
  );
}

/** Somebody with an account; rights are given in the table. */
export function UserForm(of: Of) {
  const keep = useKeep(of);
  const [id] = useState(() => crypto.randomUUID());
  const draft = useDraftForm<UserDraft, ShareUser>({
    values: { name: '', full: '' },
    resolver: checked<UserDraft, ShareUser>(userOfDraft(id)),
    draft: `user ${of.box.id}`,
    ask: false,
    save: (u) => keep({ users: withItem(of.box.sharing?.users ?? [], u) }, `“${u.name}” added`),
  });
  const { form } = draft;
  const { errors } = form.formState;
  return (
    <DraftDialog title="Somebody with an account" size="sm" draft={draft} onClose={of.onClose}>
      <Stack gap="3">
        <Input label="Name to sign in with" data error={errors.name?.message} {...form.register('name')} />
        <Input label="Who that is" error={errors.full?.message} {...form.register('full')} />
      </Stack>
    </DraftDialog>
  );
}

/** One copy in another place. */
export function LinkForm({ link, ...of }: Of & { link: FolderLink | null }) {
  const keep = useKeep(of);
  const [id] = useState(() => link?.id ?? crypto.randomUUID());
  const draft = useDraftForm<LinkDraft, FolderLink>({
    values: { at: link?.at ?? '', to: link?.to ?? '', by: link?.by ?? 'link' },
    resolver: checked<LinkDraft, FolderLink>(linkOfDraft(id)),
    draft: `link ${of.box.id} ${link?.id ?? 'new'}`,
    ask: false,
    save: (l) => keep({ links: withItem(of.box.sharing?.links ?? [], l) }, `${l.at} shows ${l.to}`),
  });
  const { form } = draft;
  const { errors } = form.formState;
  return (
    <DraftDialog title="One copy, seen in another place" draft={draft} onClose={of.onClose}>
      <Stack gap="3">
        <Input label="It is to be seen at" data error={errors.at?.message} {...form.register('at')} />
        <Input label="It really lies at" data error={errors.to?.message} {...form.register('to')} />
        <Select
          label="By"
          options={[
            { value: 'link', words: 'a link, within one shared folder' },
            { value: 'mount', words: 'mounting it there as well, also into another folder' },
          ]}
          {...form.register('by')}
        />
      </Stack>
    </DraftDialog>
  );
}

/** The name a box is found by, and from where it is reached. */
export function FoundForm({ found, ...of }: Of & { found: BoxSharing }) {
  const keep = useKeep(of);
  const draft = useDraftForm<FoundDraft, Pick<Sharing, 'name' | 'workgroup' | 'from'>>({
    values: {
      name: found.sharing.name ?? '',
      workgroup: found.sharing.workgroup,
      from: found.sharing.from.join(' '),
    },
    resolver: checked(foundSchema),
    draft: `found ${of.box.id}`,
    ask: false,
    save: (f) => keep(f, 'How it is found'),
  });
  const { form } = draft;
  const { errors } = form.formState;
  return (
    <DraftDialog title="How it is found" size="sm" draft={draft} onClose={of.onClose}>
      <Stack gap="3">
        <Input
          label="Name"
          data
          help={`empty: ${found.name}, as its host is called`}
          error={errors.name?.message}
          {...form.register('name')}
        />
        <Input label="Workgroup" data error={errors.workgroup?.message} {...form.register('workgroup')} />
        <Input
          label="Reached from"
          data
          help="networks, such as 10.44.8.0/24"
          error={errors.from?.message}
          {...form.register('from')}
        />
      </Stack>
    </DraftDialog>
  );
}
