// Screws that the shop keeps of its own.
import { useQuery } from '@tanstack/react-query';
import { client, must } from '../api/client';

export const SHOP_SCREWS = ['shop-screws'];

export function useShopScrews(enabled = true) {
  return useQuery({ queryKey: SHOP_SCREWS, enabled, queryFn: () => must(client.GET('/api/shop/screws')) });
}
