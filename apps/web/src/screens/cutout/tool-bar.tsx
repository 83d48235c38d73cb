import { Toolbar } from 'radix-ui';
import type { Gesture } from './desk-traces';
import { TOOLS, type ToolId } from './tools';
import { msg } from '../../language/language';

/** The tools, beside the photo. */
export function ToolBar({ tool, onTool }: { tool: Gesture['tool']; onTool(tool: ToolId): void }) {
  return (
    <Toolbar.Root
      aria-label={msg('Tools')}
      orientation="vertical"
      className="bg-card absolute top-14 left-3 flex max-h-[calc(100%-4.5rem)] min-w-26 flex-col gap-px overflow-y-auto rounded-md p-1 shadow-[0_2px_10px_rgba(23,27,25,0.16)]"
    >
      {TOOLS.map((t) => (
        <Toolbar.Button
          key={t.id}
          aria-pressed={tool === t.id}
          title={`${t.about} (${t.key.toUpperCase()})`}
          onClick={() => onTool(t.id)}
          className={`flex h-8 shrink-0 items-center justify-between gap-2 rounded-sm px-2 text-left text-[12px] whitespace-nowrap ${tool === t.id ? 'bg-ink text-white' : 'text-ink-2 hover:bg-paper hover:text-ink'}`}
        >
          {t.title}
          <kbd aria-hidden className="measure text-[10px]">
            {t.key.toUpperCase()}
          </kbd>
        </Toolbar.Button>
      ))}
    </Toolbar.Root>
  );
}
