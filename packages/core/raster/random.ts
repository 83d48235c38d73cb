/**
 * Numbers from 0 up to 1 that are always the same for a seed (Tommy Ettinger's mulberry32, public domain).
 * @param seed a whole number; its lowest 32 bits count
 */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
