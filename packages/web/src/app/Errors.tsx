import { Link as Base, Text } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { benchToText } from '@zb/core/model/normalForm';
import type { Bench } from '@zb/core/model/bench';
import { isRouteErrorResponse, useRouteError } from 'react-router';
import { BENCH_KEY } from '../storage/benchStore';
import { download, fileName } from '../storage/download';
import { useStore } from '../storage/hooks';
import { Word } from '../ui/Button';
import { Data } from '../ui/Words';
import { Bare } from './Opening';

/** The last net: says what happened, what is known of the bench, and what to do. */
export function ErrorPage() {
  const error = useRouteError();
  const store = useStore();
  const shown = useQueryClient().getQueryData<Bench | null>(BENCH_KEY);
  const [intact, setIntact] = useState<boolean | null>(null);
  useEffect(() => {
    store.intact().then(setIntact, () => setIntact(false));
  }, [store]);
  const words = isRouteErrorResponse(error)
    ? `${error.status} ${error.statusText}`
    : error instanceof Error
      ? error.message
      : 'unknown fault';
  return (
    <Bare headline="This screen failed">
      <Text>
        What happened: <Data>{words}</Data>.
      </Text>
      <Text role="status">
        {intact === null
          ? 'Looking at what is kept…'
          : intact
            ? 'Your bench is unharmed: what is kept in this browser was read just now.'
            : 'What is kept in this browser could not be read just now. Save the bench to a file before you go on.'}
      </Text>
      <Text>
        <Base href="/">Open the bench again</Base>
        {shown && (
          <>
            {' or '}
            <Word
              onClick={() => download(fileName(shown.name, 'json'), benchToText(shown), 'application/json')}
            >
              save it to a file
            </Word>
          </>
        )}
        .
      </Text>
    </Bare>
  );
}
