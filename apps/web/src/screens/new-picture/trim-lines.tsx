import { safeRect, trimRect, type Trim } from '@scenograph/core/shot/trim';

/** Where a picture is cut, and what words keep within; over a picture that is shown at `zoom`. */
export function TrimLines({
  frame,
  trim,
  zoom,
}: {
  frame: { width: number; height: number };
  trim: Trim;
  zoom: number;
}) {
  const cut = trimRect(frame, trim);
  const safe = safeRect(frame, trim);
  const [width, height] = [frame.width * zoom, frame.height * zoom];
  const at = (r: typeof cut) => ({
    x: r.x * zoom,
    y: r.y * zoom,
    width: Math.max(0, r.width * zoom),
    height: Math.max(0, r.height * zoom),
  });
  const c = at(cut);
  return (
    <svg
      width={width}
      height={height}
      className="pointer-events-none absolute"
      aria-hidden
      data-testid="trim-lines"
    >
      {trim.bleedMm > 0 && (
        <>
          <path
            d={`M0 0h${width}v${height}H0zM${c.x} ${c.y}v${c.height}h${c.width}v${-c.height}z`}
            className="fill-[#171b1926]"
          />
          <rect {...c} fill="none" className="stroke-coral" />
        </>
      )}
      {trim.safeMm > 0 && <rect {...at(safe)} fill="none" strokeDasharray="5 4" className="stroke-spruce" />}
    </svg>
  );
}
