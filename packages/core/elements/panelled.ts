import type { StandOut } from './base';

/** Letters on a panel of their own, in an ink that stands out from it. `key` is where the kind keeps its ink. */
export function panelled<K extends 'colour' | 'ink'>(
  key: K,
  { size, brand }: { size: number; brand: Record<string, string> },
  { ink, panel }: StandOut,
) {
  const { [key as string]: _, ...rest } = brand;
  return {
    ...({ [key]: ink } as Record<K, string>),
    brand: rest,
    opacity: 1,
    plate: {
      colour: panel,
      opacity: 0.9,
      padding: Math.round(size * 0.25),
      radius: Math.round(size * 0.12),
    },
  };
}
