import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { z } from 'zod';
import { trialDeskSchema, trialSchema, type Trial, type TrialRequest } from '@zb/core/model/trial';
import { getJson, sendFile, sendJson } from '../../parts/api';

const DESK = ['trials'];
const ok = z.object({ ok: z.literal(true) });

/** Whether trials can be had, and what is wanting for them. */
export const useDesk = () =>
  useQuery({
    queryKey: DESK,
    queryFn: () => getJson('/api/trials', trialDeskSchema),
    retry: false,
    staleTime: 0,
  });

/** The last picture of a trial’s screen as a data address; null where none was taken. */
export async function pictureOf(id: string): Promise<string | null> {
  const answer = await fetch(`/api/trials/${id}/screen`).catch(() => null);
  if (!answer?.ok) return null;
  const blob = await answer.blob();
  return new Promise((resolve) => {
    const reader = new FileReader();
    reader.onload = () => resolve(typeof reader.result === 'string' ? reader.result : null);
    reader.onerror = () => resolve(null);
    reader.readAsDataURL(blob);
  });
}

/** One trial, from being opened to its end. `onOver` is told once of each that ended while it was looked at. */
export function useTrial(onOver: (trial: Trial) => void) {
  const client = useQueryClient();
  const [told, setTold] = useState<Trial | null>(null);
  const [problem, setProblem] = useState('');
  const over = useRef(onOver);
  useEffect(() => {
    over.current = onOver;
  });
  const id = told?.id;
  useEffect(() => {
    if (id === undefined) return undefined;
    const events = new EventSource(`/api/trials/${id}/events`);
    events.onmessage = (e: MessageEvent<string>) => {
      const { data } = trialSchema.safeParse(JSON.parse(e.data));
      if (!data) return;
      setTold(data);
      if (data.state !== 'over') return;
      events.close();
      over.current(data);
      void client.invalidateQueries({ queryKey: DESK });
    };
    return () => events.close();
  }, [id, client]);
  const say = (e: unknown): void => setProblem(e instanceof Error ? e.message : String(e));
  const begin = useCallback(async (order: TrialRequest, file: File | null): Promise<void> => {
    setProblem('');
    try {
      const opened = await sendJson('POST', '/api/trials', order, trialSchema);
      setTold(opened);
      if (file) await sendFile(`/api/trials/${opened.id}/content`, file);
    } catch (e) {
      say(e);
    }
  }, []);
  const press = useCallback(
    (keys: readonly string[]): void => {
      if (id !== undefined) sendJson('POST', `/api/trials/${id}/keys`, { keys }, ok).catch(say);
    },
    [id],
  );
  const stop = useCallback((): void => {
    if (id !== undefined) sendJson('DELETE', `/api/trials/${id}`, undefined, trialSchema).catch(say);
  }, [id]);
  return { told, problem, begin, press, stop };
}
