import { HStack, Stack, Text } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { decideLayout } from '@zb/core/acts/install';
import { bordersOf, movedBorder, type Border } from '@zb/core/layout/borders';
import { laidBox } from '@zb/core/layout/forBox';
import { schoolsMean } from '@zb/core/layout/schools';
import { schoolsOf } from '@zb/core/layout/usual';
import { fstab } from '@zb/core/layout/write/fstab';
import { claimAgainst } from '@zb/core/plan/claims';
import { layoutScript } from '@zb/core/layout/write/script';
import { partSchools, swapSchools, type BoxLayout } from '@zb/core/model/layout';
import { formatBoth } from '@zb/core/units/bytes';
import {
  driveChoiceWords,
  layoutCutWords,
  layoutHeadline,
  layoutProblemWords,
  noLayoutWords,
  partSchoolWords,
  schoolMeansWords,
  swapSchoolWords,
} from '@zb/core/words/layout';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { LogEntryForm } from '../../parts/LogEntryForm';
import { useAct } from '../../storage/hooks';
import { download, fileName } from '../../storage/download';
import { Quiet } from '../../ui/Button';
import { Choices } from '../../ui/Choices';
import { Said } from '../../ui/Said';
import { Two } from '../../ui/Two';
import { Head } from '../../ui/Words';
import { AtTheInstaller } from './AtTheInstaller';
import { BeforeAfter } from './BeforeAfter';
import { Kept } from './Kept';
import { InstallViews } from './InstallViews';
import { Parts } from './Parts';
import { Sizes } from './Sizes';

/** A few MiB less, where an installer refuses the full size. Bytes. */
const LESS = 4 * 1024 ** 2;

/** Stop 7: the drive of the system before and after, what to type for each part, and the schools that decide it. */
function InstallPage({ context }: { context: BoxContext }) {
  const { bench, box, machine, profile } = context;
  const act = useAct();
  // While a border is held, what it would become is shown and nothing is kept.
  const [held, setHeld] = useState<BoxLayout['sizes'] | null>(null);
  const kept = laidBox(bench, box);
  const laid = held ? laidBox(bench, { ...box, layout: { ...kept.decided, sizes: held } }) : kept;
  const { decided, drives, drive, plan, sheet, why } = laid;
  const decide = (changed: Partial<BoxLayout>, label: string): void =>
    void act(decideLayout(box, changed, label));
  const schools = profile && schoolsOf(profile, decided);
  const mean = useMemo(() => schoolsMean(bench, box), [bench, box]);
  const nameOf = (id: string): string => plan?.want.wants.find((w) => w.id === id)?.name ?? id;
  const moveBorder = (border: Border, bytes: number, set: boolean): void => {
    const sizes = movedBorder(kept, bordersOf(kept).find((b) => b.before === border.before) ?? border, bytes);
    if (!set) return setHeld(sizes);
    setHeld(null);
    decide({ sizes }, `Border of ${border.names[0]} moved`);
  };
  const script = plan && sheet ? layoutScript(sheet.layout, plan) : null;
  const choice = drives.length > 0 && (
    <Choices
      label="Drive that takes the system"
      value={laid.suggested ? null : (drive?.id ?? null)}
      choices={drives.map((d) => ({
        value: d.id,
        ...driveChoiceWords(d, machine, claimAgainst(bench, box, d.id), laid.suggested && d === drive),
      }))}
      onTake={(driveId) => decide({ driveId }, 'Drive for the system chosen')}
    />
  );
  return (
    <BoxFrame
      context={context}
      stop="install"
      headline={layoutHeadline(laid)}
      acts={
        sheet && (
          <>
            <Quiet onClick={() => download(fileName(box.name, 'fstab'), fstab(sheet.layout), 'text/plain')}>
              Save fstab
            </Quiet>
            {typeof script === 'string' && (
              <Quiet
                onClick={() =>
                  download(fileName(`${box.name} ${drive?.name}`, 'sh'), script, 'text/x-shellscript')
                }
              >
                Save the layout as a script
              </Quiet>
            )}
          </>
        )
      }
    >
      <Stack gap="4">
        <InstallViews box={box} at="Layout" />
        {why && (
          <Said kind={why.code === 'written straight to the drive' ? 'note' : 'check'}>
            {noLayoutWords(why)}
          </Said>
        )}
        {sheet?.layout.problems.map((p) => (
          <Said key={`${p.code} ${'want' in p ? p.want : ''}`} kind="stop" loud={false}>
            {layoutProblemWords(p, nameOf)}{' '}
            {sheet.layout.cuts.length > 0 &&
              `Below is the nearest that fits: ${sheet.layout.cuts.map((c) => layoutCutWords(c, nameOf)).join(', ')}.`}
          </Said>
        ))}
        <Two
          alignItems="start"
          css={sheet ? { gridTemplateColumns: { lg: 'minmax(318px, 1fr) minmax(0, 1.35fr)' } } : {}}
        >
          <Stack gap="3">
            <BeforeAfter laid={laid} onBorder={moveBorder} />
            {sheet && choice}
            {drive && why?.code !== 'written straight to the drive' && (
              <Kept box={box} drive={drive} decided={decided} />
            )}
          </Stack>
          {sheet && plan ? (
            <Stack gap="4">
              <Parts sheet={sheet} />
              <Sizes box={box} plan={plan} decided={decided} />
              <AtTheInstaller plan={plan} />
            </Stack>
          ) : (
            choice
          )}
        </Two>
        {schools && drive && why?.code !== 'written straight to the drive' && (
          <Two alignItems="start">
            <Choices
              label="One part for all, or parts of their own?"
              value={sheet || decided.parts ? schools.parts : null}
              choices={partSchools.map((s) => ({
                value: s,
                words: partSchoolWords[s].words,
                means: `${partSchoolWords[s].means} ${schoolMeansWords(mean.parts[s])}`,
              }))}
              onTake={(parts) => decide({ parts }, `Parts: ${parts}`)}
            />
            <Choices
              label="Swap"
              value={schools.swap}
              choices={swapSchools.map((s) => ({
                value: s,
                words: swapSchoolWords[s],
                means: schoolMeansWords(mean.swap[s]),
              }))}
              onTake={(swap) => decide({ swap }, `Swap: ${swap}`)}
            />
          </Two>
        )}
        {sheet && (
          <Stack gap="1" align="flex-start">
            <Head>Refused at its full size?</Head>
            <HStack gap="3" flexWrap="wrap">
              <Text>
                Some installers refuse the very last bytes.{' '}
                {decided.reserve > 0 && `${formatBoth(decided.reserve)} are left free at the end now.`}
              </Text>
              <Quiet onClick={() => decide({ reserve: decided.reserve + LESS }, '4 MiB less at the end')}>
                The same, 4 MiB smaller
              </Quiet>
              {decided.reserve > 0 && (
                <Quiet onClick={() => decide({ reserve: 0 }, 'Full size again')}>Full size again</Quiet>
              )}
            </HStack>
          </Stack>
        )}
        <LogEntryForm box={box} stop="install" />
      </Stack>
    </BoxFrame>
  );
}

export default withBox(InstallPage);
