import { create } from 'zustand';

/** What the pointer does on a mockup, and which design is being worked on. */
interface MockupTools {
  print: string | null;
  tool: 'place' | 'shade' | 'frame' | 'compare';
  shade: { radius: number; softness: number; amount: number };
  choose(print: string | null): void;
  take(tool: MockupTools['tool']): void;
  set(shade: Partial<MockupTools['shade']>): void;
}

export const useMockupTools = create<MockupTools>((set) => ({
  print: null,
  tool: 'place',
  shade: { radius: 90, softness: 1, amount: -0.35 },
  choose: (print) => set({ print, tool: 'place' }),
  take: (tool) => set({ tool }),
  set: (shade) => set((s) => ({ shade: { ...s.shade, ...shade } })),
}));
