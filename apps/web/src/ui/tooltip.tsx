import { Tooltip as RadixTooltip } from 'radix-ui';
import type { ReactElement } from 'react';

/** What a control says of itself when a pointer rests on it or the keyboard comes to it. */
export function Tooltip({ text, children }: { text: string; children: ReactElement }) {
  return (
    <RadixTooltip.Provider delayDuration={500}>
      <RadixTooltip.Root>
        <RadixTooltip.Trigger asChild>{children}</RadixTooltip.Trigger>
        <RadixTooltip.Portal>
          <RadixTooltip.Content
            sideOffset={5}
            collisionPadding={8}
            className="bg-ink pointer-events-none z-[70] max-w-72 rounded-sm px-2 py-1 text-[12px] text-white"
          >
            {text}
          </RadixTooltip.Content>
        </RadixTooltip.Portal>
      </RadixTooltip.Root>
    </RadixTooltip.Provider>
  );
}
