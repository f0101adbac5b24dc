import { Box, chakra, Grid, Heading, Skeleton, Stack } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Primary, Quiet } from '../ui/Button';
import { Said } from '../ui/Said';
import { Acts } from '../ui/Words';
import { useNotice, useStore } from '../storage/hooks';

/** A page of its own, before there is a bench to show. */
export const Bare = ({ headline, children }: { headline: string; children: ReactNode }) => (
  <chakra.main paddingBlock="10" paddingInline={{ base: '4', md: '10' }} layerStyle="sheet" minHeight="full">
    <Stack gap="3" maxWidth="prose">
      <Heading as="h1" textStyle="headline">
        {headline}
      </Heading>
      {children}
    </Stack>
  </chakra.main>
);

/** The shape of a sheet whose screen is still being fetched. */
export const SheetShape = () => (
  <>
    <Box gridArea="sheet" layerStyle="sheet" marginTop={{ lg: '3' }} padding="5" aria-hidden="true">
      <Stack gap="4">
        <Skeleton css={{ width: '40%', height: '24px' }} />
        <Skeleton css={{ width: '70%', height: '36px' }} />
        <Skeleton css={{ width: '100%', height: '240px' }} />
      </Stack>
    </Box>
    <Box
      gridArea="ledger"
      layerStyle="margin"
      border="firm"
      borderRight="none"
      marginTop={{ lg: '3' }}
      padding="4"
      aria-hidden="true"
      hideBelow="md"
    >
      <Skeleton css={{ width: '100%', height: '180px' }} />
    </Box>
  </>
);

/** The shape of the whole page while the bench is being opened. */
export const PageShape = () => (
  <Grid
    height="page"
    role="status"
    aria-label="Opening the bench…"
    templateColumns={{ base: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 260px', lg: '204px minmax(0, 1fr) 286px' }}
    templateAreas={{ base: '"sheet"', md: '"sheet ledger"', lg: '"rail sheet ledger"' }}
  >
    <Stack gridArea="rail" gap="3" padding="4" hideBelow="lg" aria-hidden="true">
      <Skeleton css={{ width: '80%', height: '24px' }} />
      <Skeleton css={{ width: '60%', height: '180px' }} />
    </Stack>
    <SheetShape />
  </Grid>
);

/** While no bench is on the screen: that it is being opened, that storage does not answer, or that another tab has one. */
export function Opening({ demo, onBegin }: { demo: boolean; onBegin: () => void }) {
  const { silent, elsewhere } = useNotice();
  const store = useStore();
  if (elsewhere !== null)
    return (
      <Bare headline="Another tab has a bench that is not kept here">
        <Said kind="check" loud>
          This browser keeps no bench, but another tab shows <b>{elsewhere}</b>. Nothing was changed. Go to
          that tab and keep its bench there, or save it to a file; then open it here.
        </Said>
        <Acts>
          <Primary onClick={() => location.reload()}>Look again</Primary>
          <Quiet onClick={onBegin}>
            {demo ? 'Begin with the demo bench here' : 'Begin an empty bench here'}
          </Quiet>
        </Acts>
      </Bare>
    );
  if (silent)
    return (
      <Bare headline="The browser’s storage does not answer">
        <Said kind="check" loud>
          It was asked for your bench some seconds ago and is still waited for. Nothing was changed, and
          nothing is known about what is kept. Close other tabs of this application, or start the browser
          again. Without storage you can open a bench file, and save it to a file again.
        </Said>
        <Acts>
          <Primary onClick={() => location.reload()}>Open the page again</Primary>
          <Quiet onClick={() => store.goOnWithout()}>Go on without storage</Quiet>
        </Acts>
      </Bare>
    );
  return <PageShape />;
}
