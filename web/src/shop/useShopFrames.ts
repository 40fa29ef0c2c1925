// How the shop joins frames, and the sections that it keeps of its own.
import { useQuery } from '@tanstack/react-query';
import { client, must } from '../api/client';

export const SHOP_FRAMES = ['shop-frames'];

export function useShopFrames(enabled = true) {
  return useQuery({ queryKey: SHOP_FRAMES, enabled, queryFn: () => must(client.GET('/api/shop/frames')) });
}
