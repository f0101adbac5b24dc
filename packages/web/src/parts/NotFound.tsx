import { Kbd, Text } from '@chakra-ui/react';
import { To } from '../ui/To';
import { LedgerAside } from './LedgerPane';
import { Sheet } from './Sheet';

export default function NotFound({ what = 'Nothing is kept at this address' }: { what?: string }) {
  return (
    <>
      <Sheet title="Not found" headline={what}>
        <Text>
          It may have been removed, or the address belongs to another bench. Press <Kbd>/</Kbd> to find
          something by name, or go to the <To to="/shelf">shelf</To> or back to the <To to="/">bench</To>.
        </Text>
      </Sheet>
      <LedgerAside>{null}</LedgerAside>
    </>
  );
}
