import { useEffect, useState } from 'react';

/** Ids of kept ideas: they stay with the listing in this browser until shots are made of them. */
export function useKept(listing: string) {
  const place = `ideas-kept-${listing}`;
  const [kept, setKept] = useState<string[]>(() => {
    try {
      const stored: unknown = JSON.parse(localStorage.getItem(place) ?? '[]');
      return Array.isArray(stored) ? stored.filter((id): id is string => typeof id === 'string') : [];
    } catch {
      return [];
    }
  });
  useEffect(() => localStorage.setItem(place, JSON.stringify(kept)), [place, kept]);
  return [kept, setKept] as const;
}
