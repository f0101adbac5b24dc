import { useEffect, useState } from 'react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { VirtualStick } from '@zb/core/demo/sticks';
import { findImage, type Bench, type Box } from '@zb/core/schema/bench';
import { getJson } from './api';

/** A write as the stand-in writer tells of it; bytes and seconds. */
export interface Job {
  id: string;
  stickId: string;
  serial: string;
  imageName: string;
  total: number;
  state:
    'waiting for the file' | 'writing' | 'reading back' | 'proven' | 'failed' | 'cancelled' | 'interrupted';
  written: number;
  readBack: number;
  seconds: number;
  pattern: string | null;
  firstDifference: number | null;
  explanation: string;
  startedAt: string;
  /** "boxId:imageId", so that any tab can record how it ended. */
  tag: string;
}

/** What a write belongs to, as the page told the server when it began. */
export const tagOf = (box: Box, imageId: string): string => `${box.id}:${imageId}`;
export const belongsTo = (job: Job): { boxId: string; imageId: string } => {
  const at = job.tag.indexOf(':');
  return { boxId: job.tag.slice(0, at), imageId: job.tag.slice(at + 1) };
};

/** The writes of this bench: the server may know of others, from another bench or browser. */
export const jobsOf = (bench: Bench, jobs: readonly Job[] | undefined): Job[] =>
  jobs?.filter((j) => findImage(bench, belongsTo(j).imageId) !== undefined) ?? [];

export const isOver = (job: Job): boolean =>
  !['waiting for the file', 'writing', 'reading back'].includes(job.state);

export const useSticks = () =>
  useQuery({
    queryKey: ['sticks'],
    queryFn: () => getJson<VirtualStick[]>('/api/writer/sticks'),
    retry: false,
  });
export const useJobs = () =>
  useQuery({
    queryKey: ['jobs'],
    queryFn: () => getJson<Job[]>('/api/writer/jobs'),
    retry: false,
    refetchInterval: (q) => (q.state.data?.some((j) => !isOver(j)) ? 2000 : false),
  });

/** Follows one job over server-sent events; falls back to what the list said when the line breaks. */
export function useJobEvents(job: Job | undefined): { job: Job | undefined; broken: boolean } {
  const [told, setTold] = useState<Job>();
  const [broken, setBroken] = useState(false);
  const client = useQueryClient();
  const id = job && !isOver(job) ? job.id : undefined;
  useEffect(() => {
    if (id === undefined) return undefined;
    const events = new EventSource(`/api/writer/jobs/${id}/events`);
    events.onmessage = (e: MessageEvent<string>) => {
      const now = JSON.parse(e.data) as Job;
      setBroken(false);
      setTold(now);
      if (!isOver(now)) return;
      events.close();
      void client.invalidateQueries({ queryKey: ['jobs'] });
    };
    events.onerror = () => setBroken(true);
    return () => events.close();
  }, [id, client]);
  // What is over stays over: a late list must not be overruled by an earlier message.
  return { job: told && told.id === job?.id && !isOver(job) ? told : job, broken };
}
