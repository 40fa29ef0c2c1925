// Sections that are kept, for completing what is typed and to choose from.
import { useQuery } from '@tanstack/react-query';
import { client, must } from '../api/client';

/** Sections that are kept, fetched once. */
export function useSections(enabled: boolean) {
  return useQuery({
    queryKey: ['sections'],
    enabled,
    staleTime: Infinity,
    queryFn: () => must(client.GET('/api/sections', {})),
  });
}
