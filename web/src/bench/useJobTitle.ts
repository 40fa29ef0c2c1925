import { useQuery } from '@tanstack/react-query';
import { client, must } from '../api/client';

/** Number and title of the job that a piece belongs to, once they are known. */
export function useJobTitle(jobId: number): string | undefined {
  const job = useQuery({
    queryKey: ['job', jobId],
    enabled: jobId > 0,
    queryFn: () => must(client.GET('/api/jobs/{id}', { params: { path: { id: jobId } } })),
  });
  return job.data && `${job.data.job.number} ${job.data.job.title}`;
}
