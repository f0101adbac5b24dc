import { Box } from '@chakra-ui/react';
import { screensOf, sheetOf } from '@zb/core/firststart/screen';
import { testSheet } from '@zb/core/firststart/sheet';
import type { Box as Build, Machine } from '@zb/core/model/bench';
import { screenWords } from '@zb/core/words/firstStart';
import { download, fileName } from '../../storage/download';
import { Quiet } from '../../ui/Button';
import { Data, Head, Sub } from '../../ui/Words';

/** What each display says of itself, and a page to be opened on the box: edges, greys, lines, left and right. */
export function ScreenAndSound({ box, machine }: { box: Build; machine: Machine }) {
  const screens = screensOf(machine);
  return (
    <Box as="section" aria-label="Screen and sound">
      <Head>Screen and sound</Head>
      {screens.length === 0 && (
        <Sub>No survey has seen a display; the sheet measures the one it is opened on.</Sub>
      )}
      {screens.map((s) => (
        <Sub key={s.connector}>
          <Data>{s.connector}</Data> {screenWords(s)}
        </Sub>
      ))}
      <Quiet
        onClick={() =>
          download(fileName(`${box.name} test sheet`, 'html'), testSheet(sheetOf(box, machine)), 'text/html')
        }
      >
        A test sheet to open on the box
      </Quiet>
      <Sub>One file that needs no network: overscan, grey steps, scaling, left, centre and right.</Sub>
    </Box>
  );
}
