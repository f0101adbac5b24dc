import { useEffect, useState } from 'react';
import { z } from 'zod';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { healthSchema, virtualStickSchema } from '@zb/core/model/standIns';
import { isOver, jobSchema, type Job } from '@zb/core/model/job';
import { getJson } from './api';

/** How the server is asked whether its stand-ins are well. */
export const healthQuery = {
  queryKey: ['health'],
  queryFn: () => getJson('/api/health', healthSchema),
  retry: false,
};
export const useHealth = () =>
  useQuery({
    ...healthQuery,
    refetchInterval: (q) => (q.state.data?.troubles.length ? 5000 : false),
  });
export const useSticks = () =>
  useQuery({
    queryKey: ['sticks'],
    queryFn: () => getJson('/api/writer/sticks', z.array(virtualStickSchema)),
    retry: false,
  });
export const useJobs = () =>
  useQuery({
    queryKey: ['jobs'],
    queryFn: () => getJson('/api/writer/jobs', z.array(jobSchema)),
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
      const now = jobSchema.parse(JSON.parse(e.data));
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
