// The tables of stock that the screen chooses from.
import { useQuery } from '@tanstack/react-query';

export interface StockTables {
  materials: { name: string; title: string; family: string }[];
  gauges: { family: string; number: number; inches: number }[];
  thicknesses: Record<string, number[]>;
  inch_thicknesses: Record<string, number[]>;
  screws: { head: string; size: string }[];
}

/** The thicknesses that a material is rolled in, as they are typed. */
export function thicknessesOf(stock: StockTables | undefined, material: string): string[] {
  const family = stock?.materials.find((one) => one.name === material)?.family;
  if (!stock || !family) return [];
  return [
    ...(stock.thicknesses[family] ?? []).map((one) => `${one} mm`),
    ...(stock.inch_thicknesses[family] ?? []).map(inchText),
    ...stock.gauges.filter((one) => one.family === family).map((one) => `${one.number} ga`),
  ];
}

/** The stock tables, fetched once. */
export function useStock() {
  return useQuery({
    queryKey: ['stock'],
    staleTime: Infinity,
    queryFn: async () => (await (await fetch('/api/stock')).json()) as StockTables,
  });
}

/** Inches as a shop says them: plate in sixteenths, "1 1/2 in", anything else as a decimal, "0.063 in". */
export function inchText(inches: number): string {
  const sixteenths = inches * 16;
  if (Math.abs(sixteenths - Math.round(sixteenths)) > 1e-9) return `${inches} in`;
  const whole = Math.floor(inches + 1e-9);
  let [over, under] = [Math.round(sixteenths) - whole * 16, 16];
  while (over > 0 && over % 2 === 0) [over, under] = [over / 2, under / 2];
  return `${[whole || '', over ? `${over}/${under}` : ''].filter(String).join(' ')} in`;
}
