import { Box, List, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { installerWays, layoutSteps, type InstallerWay } from '@zb/core/layout/steps';
import type { LayoutPlan } from '@zb/core/model/layout';
import { layoutStepWords } from '@zb/core/words/layout';
import { Fold } from '../../ui/Fold';
import { Segments } from '../../ui/Segments';

/** The layout as steps in words, for the way in which an installer takes it. */
export function AtTheInstaller({ plan }: { plan: LayoutPlan }) {
  const [way, setWay] = useState<InstallerWay>('asks part after part');
  return (
    <Fold title="Step by step at the installer">
      <Stack gap="2">
        <Box alignSelf="flex-start">
          <Segments label="How the installer is told" options={installerWays} value={way} onTake={setWay} />
        </Box>
        <List.Root
          as="ol"
          aria-label="Steps at the installer"
          paddingInlineStart="6"
          css={{ listStyle: 'decimal' }}
        >
          {layoutSteps(plan, way).map((s, i) => (
            <List.Item key={i} whiteSpace="pre-wrap">
              {layoutStepWords(s)}
            </List.Item>
          ))}
        </List.Root>
      </Stack>
    </Fold>
  );
}
