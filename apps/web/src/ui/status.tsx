import { Progress } from 'radix-ui';
import { decimals, msg } from '../language/language';
export type Mark = 'pass' | 'look' | 'stop' | 'missing' | 'stale' | 'working';

const TITLES: Record<Mark, string> = {
  pass: msg('pass'),
  look: msg('warning'),
  stop: msg('failed'),
  missing: msg('missing'),
  stale: msg('out of date'),
  working: msg('in progress'),
};

export function StatusMark({ mark, size = 10 }: { mark: Mark; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 12 12"
      role="img"
      aria-label={TITLES[mark]}
      className="shrink-0"
    >
      {mark === 'pass' && <circle cx="6" cy="6" r="5" fill="var(--color-spruce)" />}
      {mark === 'look' && <path d="M6 1 11.4 11H.6Z" fill="var(--color-amber)" />}
      {mark === 'stop' && <path d="M6 0 12 6 6 12 0 6Z" fill="var(--color-coral)" />}
      {mark === 'missing' && (
        <rect
          x="1"
          y="1"
          width="10"
          height="10"
          fill="none"
          stroke="var(--color-ink-3)"
          strokeDasharray="2.4 1.8"
        />
      )}
      {mark === 'stale' && (
        <path d="M10.2 8.4A5 5 0 1 1 10.2 3.6" fill="none" stroke="var(--color-ink-2)" strokeWidth="2" />
      )}
      {mark === 'working' && (
        <circle
          cx="6"
          cy="6"
          r="4.4"
          fill="none"
          stroke="var(--color-ink-3)"
          strokeWidth="1.6"
          strokeDasharray="4 3"
        />
      )}
    </svg>
  );
}

export function ProgressBar({ share, label }: { share: number; label: string }) {
  return (
    <Progress.Root
      aria-label={label}
      value={Math.round(Math.min(1, Math.max(0, share)) * 100)}
      className="bg-line h-1.5 w-full overflow-hidden rounded-full"
    >
      <Progress.Indicator
        className="bg-spruce h-full transition-[width]"
        style={{ width: `${share * 100}%` }}
      />
    </Progress.Root>
  );
}

export function bytesText(bytes: number): string {
  if (bytes < 1024) return `${bytes} B`;
  if (bytes < 1024 * 1024) return `${decimals(bytes / 1024, bytes < 10240 ? 1 : 0)} KB`;
  return `${decimals(bytes / 1024 / 1024, 2)} MB`;
}
