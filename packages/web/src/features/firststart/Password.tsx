import { Box, HStack, Stack, Text } from '@chakra-ui/react';
import { passwordSet } from '@zb/core/acts/firstStart';
import { evenDraw, passphrase, passphraseBits } from '@zb/core/firststart/passphrase';
import type { Strength } from '@zb/core/firststart/strength';
import type { Box as Build, Profile } from '@zb/core/model/bench';
import type { FirstRecord } from '@zb/core/model/firstStart';
import { formatDay } from '@zb/core/units/date';
import { strengthWords, willDo } from '@zb/core/words/password';
import { useEffect, useState } from 'react';
import { stamp, useAct } from '../../storage/hooks';
import { Primary, Quiet, Word } from '../../ui/Button';
import { Checkbox } from '../../ui/Checkbox';
import { Fold } from '../../ui/Fold';
import { Input } from '../../ui/Input';
import { VerdictMark } from '../../ui/Marks';
import { Acts, Data, Head, Sub } from '../../ui/Words';

/** Words in a passphrase that is made here: six of 7,776 are 77 bits. Common practice, no source. */
const WORDS = 6;
const chance = (count: number): Uint8Array => crypto.getRandomValues(new Uint8Array(count));

/** Where it is written down and who knows it. The password itself stays in this field and goes nowhere. */
export function Password({ box, profile, record }: { box: Build; profile: Profile; record: FirstRecord }) {
  const act = useAct();
  const known = record.password;
  const [typed, setTyped] = useState('');
  const [seen, setSeen] = useState(false);
  const [made, setMade] = useState('');
  const [strength, setStrength] = useState<Strength | null>(null);
  const [kept, setKept] = useState(known?.kept ?? '');
  const [knows, setKnows] = useState(known?.knows ?? '');
  const [replaced, setReplaced] = useState(known?.replaced ?? false);
  const shipped = profile.login === 'shipped default';
  useEffect(() => {
    let here = true;
    // The estimator is large: it comes when the first letter is typed.
    if (typed !== '')
      void import('@zb/core/firststart/strength').then(({ strengthOf }) => {
        if (here) setStrength(strengthOf(typed));
      });
    return () => {
      here = false;
    };
  }, [typed]);
  const make = (): void =>
    void import('@zb/core/firststart/strength').then(({ wordList }) => {
      const phrase = passphrase(wordList, WORDS, evenDraw(chance));
      setMade(
        `${WORDS} of ${wordList.length.toLocaleString('en')} words, ${Math.floor(passphraseBits(wordList.length, WORDS))} bits of chance`,
      );
      setTyped(phrase);
      setSeen(true);
    });
  const ready = kept.trim() !== '' && (!shipped || replaced);
  const keep = (): void => {
    void act(passwordSet(box, kept.trim(), knows.trim(), replaced, stamp()));
    setTyped('');
    setMade('');
    setSeen(false);
  };
  return (
    <Box as="section" aria-label="Password">
      <Head>Password</Head>
      {known && (
        <Text>
          Set {formatDay(known.at)}; written down: {known.kept}
          {known.knows === '' ? '' : `; known to: ${known.knows}`}.
        </Text>
      )}
      <Fold
        title={known ? 'Another one' : shipped ? 'Replace the one everybody knows' : 'Choose one'}
        open={!known}
      >
        <Stack gap="2">
          <Input
            label="Try it here: it is neither kept nor sent"
            type={seen ? 'text' : 'password'}
            data
            autoComplete="off"
            spellCheck={false}
            value={typed}
            onChange={(e) => {
              setTyped(e.target.value);
              setMade('');
            }}
          />
          <Acts>
            <Quiet onClick={make}>Make a passphrase</Quiet>
            <Word onClick={() => setSeen(!seen)}>{seen ? 'hide it' : 'show it'}</Word>
          </Acts>
          <Box role="status">
            {typed !== '' && strength && (
              <Text>
                <VerdictMark kind={willDo(strength) ? 'yes' : 'change'}>
                  {willDo(strength) ? 'will do' : 'will not do'}
                </VerdictMark>{' '}
                {strengthWords(strength)}
              </Text>
            )}
            {made !== '' && <Sub>{made}</Sub>}
          </Box>
          <Input
            label="Written down where"
            placeholder="the green book"
            value={kept}
            onChange={(e) => setKept(e.target.value)}
          />
          <Input label="Who knows it" value={knows} onChange={(e) => setKnows(e.target.value)} />
          {shipped && (
            <Checkbox checked={replaced} onChange={setReplaced}>
              The one it came with no longer opens it
            </Checkbox>
          )}
          <HStack gap="3">
            <Primary disabled={!ready} onClick={keep}>
              It is set, and written down
            </Primary>
            {!ready && (
              <Sub>
                {kept.trim() === '' ? 'Say where it is written down.' : 'Replace the shipped one first.'}
              </Sub>
            )}
          </HStack>
          <Sub>
            Never the one of another box. What is noted: <Data>where</Data> and <Data>who</Data>, nothing
            else.
          </Sub>
        </Stack>
      </Fold>
    </Box>
  );
}
