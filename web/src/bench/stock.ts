// The tables of stock that the screen chooses from.
import { useQuery } from '@tanstack/react-query';

/** The stock tables, fetched once. */
export function useStock() {
  return useQuery({
    queryKey: ['stock'],
    staleTime: Infinity,
    queryFn: async () =>
      (await (await fetch('/api/stock')).json()) as {
        materials: { name: string; title: string; family: string }[];
        gauges: { family: string; number: number; inches: number }[];
        thicknesses: Record<string, number[]>;
      },
  });
}
