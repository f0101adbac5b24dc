import { Stack, Text } from '@chakra-ui/react';
import { noteWiped } from '@zb/core/acts/storage';
import type { Box } from '@zb/core/model/bench';
import type { PoolCandidate } from '@zb/core/storage/forBox';
import { wipeSchema } from '@zb/core/storage/wipe';
import { formatBoth } from '@zb/core/units/bytes';
import { formatSpan } from '@zb/core/units/duration';
import { erasePlan } from '@zb/core/write/erase';
import { checked } from '../../parts/checked';
import { useActAndClose } from '../../parts/DraftDialog';
import { useDraftForm } from '../../parts/useDraftForm';
import { stamp } from '../../storage/hooks';
import { Primary } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Input } from '../../ui/Input';
import { Said } from '../../ui/Said';
import { To } from '../../ui/To';
import { Acts, Data } from '../../ui/Words';

/** Before a drive becomes part of a pool: what is on it is gone, and its serial is typed by whoever says so. */
export function Wipe({
  box,
  candidate: { store, holds },
  onClose,
}: {
  box: Box;
  candidate: PoolCandidate;
  onClose: () => void;
}) {
  const keep = useActAndClose(onClose);
  const { form, submit } = useDraftForm<{ serial: string }>({
    values: { serial: '' },
    resolver: checked(wipeSchema(store.serial)),
    draft: null,
    ask: false,
    save: () => keep(noteWiped(box, store, stamp())),
  });
  const once = erasePlan(store).ways[0]?.seconds;
  return (
    <Dialog open onClose={onClose} title={`${store.name}: what is on it is gone`}>
      <Stack gap="3">
        <Text>
          {formatBoth(store.bytes)}. On it, as far as known: <b>{holds}</b>.
        </Text>
        <Said>
          Taking the marks of old file systems off is enough for a pool, and takes a second. Where others may
          not read what was there, overwrite all of it{once ? `: ${formatSpan(once)}` : ''}; ways and commands
          stand <To to={`/shelf/${store.id}`}>with the drive on the shelf</To>.
        </Said>
        {store.serial === null ? (
          <Said kind="check">
            Its serial is not known: survey the machine, or write it down on the shelf.
          </Said>
        ) : (
          <form onSubmit={(e) => void submit(e)}>
            <Input
              label="Its serial, as it stands on the drive"
              data
              help={
                <>
                  <Data>{store.serial}</Data> is what the shelf has
                </>
              }
              error={form.formState.errors.serial?.message}
              {...form.register('serial')}
            />
            <Acts marginTop="3">
              <Primary type="submit">It is wiped</Primary>
            </Acts>
          </form>
        )}
      </Stack>
    </Dialog>
  );
}
