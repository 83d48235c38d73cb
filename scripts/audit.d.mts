export declare function faultsOf(
  report: object,
  allowed?: Record<string, { why: string; until: string }>,
  today?: string,
): string[];
