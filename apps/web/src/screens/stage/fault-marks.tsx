import type { CheckResult } from '@scenograph/core/spec/checks/check';
import type { Slot } from '@scenograph/core/spec/slot';

/** Places in the picture where a check found something, marked on the stage. */
export function FaultMarks({
  results,
  frame,
  zoom,
}: {
  results: CheckResult[] | null;
  frame: { width: number; height: number };
  zoom: number;
}) {
  const marks = (results ?? []).filter((r) => r.verdict !== 'pass' && r.where && r.about);
  if (!marks.length) return null;
  const [w, h] = [frame.width * zoom, frame.height * zoom];
  return (
    <svg
      className="pointer-events-none absolute overflow-visible"
      width={w}
      height={h}
      aria-hidden
      data-testid="fault-marks"
    >
      {marks.map((r, i) => (
        <g key={i} transform={`translate(${r.where!.x * w - 3} ${r.where!.y * h - 3})`}>
          {['#ffffffcc', r.verdict === 'stop' ? '#c8402f' : '#b87503'].map((stroke, n) => (
            <rect
              key={stroke}
              width={r.where!.width * w + 6}
              height={r.where!.height * h + 6}
              fill="none"
              stroke={stroke}
              strokeWidth={n ? 1.5 : 3.5}
              strokeDasharray={r.verdict === 'stop' ? undefined : '5 3'}
            >
              <title>{r.title}</title>
            </rect>
          ))}
        </g>
      ))}
    </svg>
  );
}

/** The space at a slot's edge that overlays keep clear. */
export function SafeZone({ slot, zoom }: { slot: Slot; zoom: number }) {
  const safe = slot.safeShare * Math.min(slot.width, slot.height) * zoom;
  if (safe < 1) return null;
  const [w, h] = [slot.width * zoom, slot.height * zoom];
  return (
    <svg
      className="pointer-events-none absolute overflow-visible"
      width={w}
      height={h}
      aria-hidden
      data-testid="safe-zone"
    >
      {['#ffffff99', '#12463a99'].map((stroke, n) => (
        <rect
          key={stroke}
          x={safe}
          y={safe}
          width={w - 2 * safe}
          height={h - 2 * safe}
          fill="none"
          stroke={stroke}
          strokeWidth="1"
          strokeDasharray="4 4"
          strokeDashoffset={n * 4}
        />
      ))}
    </svg>
  );
}
