import { useRef } from 'react';
import type { Light } from '@scenograph/core/stage/light';
import { NumberField, Segmented, Slider } from '../../ui/controls';

const WIDTH = 268;
const HEIGHT = 136;
const CX = WIDTH / 2;
const BASE = 114;
const R = 106;
const rad = (d: number) => (d * Math.PI) / 180;
const deg = (r: number) => (r * 180) / Math.PI;

/** A half-sphere over the product with a light to drag on it; the sphere is seen a little from above. */
export function LightDome({
  light,
  onChange,
  onCommit,
}: {
  light: Light;
  onChange(light: Light): void;
  onCommit(light: Light): void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const behind = Math.abs(light.azimuthDeg) > 90;
  const x = CX + R * Math.cos(rad(light.elevationDeg)) * Math.sin(rad(light.azimuthDeg));
  const depth = Math.cos(rad(light.elevationDeg)) * Math.cos(rad(light.azimuthDeg));
  const y = BASE - (R - 8) * Math.sin(rad(light.elevationDeg)) + 8 * depth;

  const at = (e: React.PointerEvent): Light => {
    const r = svg.current!.getBoundingClientRect();
    const u = (((e.clientX - r.left) / r.width) * WIDTH - CX) / R;
    const v = (BASE - ((e.clientY - r.top) / r.height) * HEIGHT) / (R - 8);
    const length = Math.hypot(u, v);
    const [un, vn] = length > 0.995 ? [(u / length) * 0.995, (v / length) * 0.995] : [u, v];
    const elevation = Math.min(85, Math.max(5, deg(Math.asin(Math.min(1, Math.max(0, vn))))));
    const side = deg(Math.asin(Math.min(1, Math.max(-1, un / Math.cos(rad(elevation))))));
    const azimuth = behind ? (side >= 0 ? 180 - side : -180 - side) : side;
    return { ...light, azimuthDeg: Math.round(azimuth), elevationDeg: Math.round(elevation) };
  };
  const turn = (azimuth: number, elevation: number): Light => ({
    ...light,
    azimuthDeg: ((azimuth + 540) % 360) - 180,
    elevationDeg: Math.min(85, Math.max(5, elevation)),
  });
  const flip = (): Light =>
    turn(light.azimuthDeg >= 0 ? 180 - light.azimuthDeg : -180 - light.azimuthDeg, light.elevationDeg);

  return (
    <div>
      <svg
        ref={svg}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="w-full touch-none select-none"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          onChange(at(e));
        }}
        onPointerMove={(e) => e.buttons && onChange(at(e))}
        onPointerUp={(e) => onCommit(at(e))}
      >
        <ellipse cx={CX} cy={BASE} rx={R} ry="13" fill="#ededec" stroke="var(--color-line)" />
        <path
          d={`M${CX - R} ${BASE}A${R} ${R - 8} 0 0 1 ${CX + R} ${BASE}`}
          fill="#fafaf9"
          stroke="#cfd1ce"
        />
        <path
          d={`M${CX} ${BASE - R + 8}V${BASE}M${CX - R / 2} ${BASE}A${R / 2} ${R - 12} 0 0 1 ${CX} ${BASE - R + 8}M${CX + R / 2} ${BASE}A${R / 2} ${R - 12} 0 0 0 ${CX} ${BASE - R + 8}`}
          fill="none"
          stroke="#e1e2e0"
        />
        <path
          d={`M${CX - R / 2.2} ${BASE - 46}H${CX + R / 2.2}M${CX - R * 0.83} ${BASE - 56}H${CX + R * 0.83}`}
          stroke="none"
        />
        <ellipse
          cx={CX - (x - CX) * 0.22}
          cy={BASE - depth * 4 + 1}
          rx={6 + 26 * Math.cos(rad(light.elevationDeg)) * Math.abs(Math.sin(rad(light.azimuthDeg)))}
          ry="4"
          fill="#00000022"
        />
        <rect x={CX - 5} y={BASE - 14} width="10" height="15" fill="var(--color-spruce)" />
        <line x1={x} y1={y} x2={CX} y2={BASE - 6} stroke="#5a625e" strokeDasharray="2 3" />
        <circle
          cx={x}
          cy={y}
          r="9"
          tabIndex={0}
          role="slider"
          aria-label="Light"
          aria-valuenow={light.azimuthDeg}
          aria-valuetext={`${light.azimuthDeg} degrees round, ${light.elevationDeg} degrees up`}
          fill={behind ? '#ffffff' : 'var(--color-limelight)'}
          stroke="var(--color-spruce)"
          strokeWidth="2"
          className="cursor-grab"
          onKeyDown={(e) => {
            const by = e.shiftKey ? 10 : 2;
            const to: Record<string, [number, number]> = {
              ArrowLeft: [-by, 0],
              ArrowRight: [by, 0],
              ArrowUp: [0, by],
              ArrowDown: [0, -by],
            };
            const step = to[e.key];
            if (!step) return;
            e.preventDefault();
            e.stopPropagation();
            onCommit(turn(light.azimuthDeg + step[0], light.elevationDeg + step[1]));
          }}
        />
      </svg>
      <div className="mt-1 grid grid-cols-2 gap-2">
        <NumberField
          label="Direction"
          unit="°"
          value={light.azimuthDeg}
          min={-180}
          max={180}
          onCommit={(v) => onCommit({ ...light, azimuthDeg: v })}
        />
        <NumberField
          label="Height"
          unit="°"
          value={light.elevationDeg}
          min={5}
          max={85}
          onCommit={(v) => onCommit({ ...light, elevationDeg: v })}
        />
      </div>
      <div className="mt-2">
        <Segmented
          label="Light stands"
          value={behind ? 'behind' : 'front'}
          onChange={() => onCommit(flip())}
          options={[
            { value: 'front', title: 'Before the product' },
            { value: 'behind', title: 'Behind it' },
          ]}
        />
      </div>
      <Slider
        label="Softness"
        unit="%"
        value={Math.round(light.softness * 100)}
        onChange={(v) => onChange({ ...light, softness: v / 100 })}
        onCommit={(v) => onCommit({ ...light, softness: v / 100 })}
      />
    </div>
  );
}
