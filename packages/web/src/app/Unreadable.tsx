import { Text } from '@chakra-ui/react';
import { useState } from 'react';
import { Primary, Quiet } from '../ui/Button';
import { Said } from '../ui/Said';
import { Acts } from '../ui/Words';
import { FileProblems } from '../parts/FileProblems';
import { download } from '../storage/download';
import { useStore } from '../storage/hooks';
import type { UnreadableBench } from '../storage/keeper';
import { Bare } from './Opening';

/** What is kept here cannot be opened: says where it is wrong, hands all of it out, and only then lets it go. */
export function Unreadable({ fault }: { fault: UnreadableBench }) {
  const store = useStore();
  const [saved, setSaved] = useState(false);
  const save = (): void => {
    download('kept-bench.json', JSON.stringify(fault.kept, null, 2), 'application/json');
    setSaved(true);
  };
  return (
    <Bare headline="The bench kept in this browser cannot be read">
      <Said kind="stop">{fault.message} Nothing was changed or deleted.</Said>
      <FileProblems list={fault.problems} most={8} />
      <Text>
        Save all of it to a file first. The file can be mended by hand, at the places named above, and opened
        again as a bench file. Then begin anew here.
      </Text>
      <Acts>
        <Primary onClick={save}>Save what is kept to a file</Primary>
        <Quiet onClick={() => void store.beginAnew()} disabled={!saved}>
          Begin anew
        </Quiet>
      </Acts>
    </Bare>
  );
}
