import { useRef } from 'react';
import type { Light } from '@scenograph/core/stage/light';
import { NumberField, Segmented, Slider } from '../../ui/controls';
import { DOME, flipped, isBehind, lightAt, onDome, turnedBy } from './light-on-dome';
import { msg } from '../../language/language';

const { width: WIDTH, height: HEIGHT, cx: CX, base: BASE, radius: R } = DOME;
const rad = (d: number) => (d * Math.PI) / 180;

interface Props {
  light: Light;
  onChange(light: Light): void;
  onCommit(light: Light): void;
}

/** Where the light stands: dragged on a dome, by numbers, before or behind the product; and how soft it is. */
export function LightDome({ light, onChange, onCommit }: Props) {
  return (
    <div>
      <Dome light={light} onChange={onChange} onCommit={onCommit} />
      <div className="mt-1 grid grid-cols-2 gap-2">
        <NumberField
          label={msg('Direction')}
          unit="°"
          value={light.azimuthDeg}
          min={-180}
          max={180}
          onCommit={(v) => onCommit({ ...light, azimuthDeg: v })}
        />
        <NumberField
          label={msg('Height')}
          unit="°"
          value={light.elevationDeg}
          min={5}
          max={85}
          onCommit={(v) => onCommit({ ...light, elevationDeg: v })}
        />
      </div>
      <div className="mt-2">
        <Segmented
          label={msg('Light stands')}
          value={isBehind(light) ? 'behind' : 'front'}
          onChange={() => onCommit(flipped(light))}
          options={[
            { value: 'front', title: msg('Before the product') },
            { value: 'behind', title: msg('Behind it') },
          ]}
        />
      </div>
      <Slider
        label={msg('Softness')}
        unit="%"
        value={Math.round(light.softness * 100)}
        onChange={(v) => onChange({ ...light, softness: v / 100 })}
        onCommit={(v) => onCommit({ ...light, softness: v / 100 })}
      />
    </div>
  );
}

/** A half-sphere over the product with a light to drag on it; the sphere is seen a little from above. */
function Dome({ light, onChange, onCommit }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const { x, y, depth } = onDome(light);
  const at = (e: React.PointerEvent): Light => {
    const r = svg.current!.getBoundingClientRect();
    return lightAt(
      light,
      ((e.clientX - r.left) / r.width) * WIDTH,
      ((e.clientY - r.top) / r.height) * HEIGHT,
    );
  };
  return (
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
      <Sphere />
      <ellipse
        cx={CX - (x - CX) * 0.22}
        cy={BASE - depth * 4 + 1}
        rx={6 + 26 * Math.cos(rad(light.elevationDeg)) * Math.abs(Math.sin(rad(light.azimuthDeg)))}
        ry="4"
        fill="#00000022"
      />
      <rect x={CX - 5} y={BASE - 14} width="10" height="15" fill="var(--color-spruce)" />
      <line x1={x} y1={y} x2={CX} y2={BASE - 6} stroke="#5a625e" strokeDasharray="2 3" />
      <Knob light={light} x={x} y={y} onCommit={onCommit} />
    </svg>
  );
}

function Sphere() {
  return (
    <>
      <ellipse cx={CX} cy={BASE} rx={R} ry="13" fill="#ededec" stroke="var(--color-line)" />
      <path d={`M${CX - R} ${BASE}A${R} ${R - 8} 0 0 1 ${CX + R} ${BASE}`} fill="#fafaf9" stroke="#cfd1ce" />
      <path
        d={`M${CX} ${BASE - R + 8}V${BASE}M${CX - R / 2} ${BASE}A${R / 2} ${R - 12} 0 0 1 ${CX} ${BASE - R + 8}M${CX + R / 2} ${BASE}A${R / 2} ${R - 12} 0 0 0 ${CX} ${BASE - R + 8}`}
        fill="none"
        stroke="#e1e2e0"
      />
    </>
  );
}

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** The light itself; arrows move it by 2 degrees, with Shift by 10. */
function Knob({
  light,
  x,
  y,
  onCommit,
}: {
  light: Light;
  x: number;
  y: number;
  onCommit(light: Light): void;
}) {
  return (
    <circle
      cx={x}
      cy={y}
      r="9"
      tabIndex={0}
      role="slider"
      aria-label={msg('Light')}
      aria-valuenow={light.azimuthDeg}
      aria-valuetext={msg('{azimuthDeg} degrees round, {elevationDeg} degrees up', {
        azimuthDeg: light.azimuthDeg,
        elevationDeg: light.elevationDeg,
      })}
      fill={isBehind(light) ? '#ffffff' : 'var(--color-limelight)'}
      stroke="var(--color-spruce)"
      strokeWidth="2"
      className="cursor-grab"
      onKeyDown={(e) => {
        const arrow = ARROWS[e.key];
        if (!arrow) return;
        e.preventDefault();
        e.stopPropagation();
        const by = e.shiftKey ? 10 : 2;
        onCommit(turnedBy(light, arrow[0] * by, arrow[1] * by));
      }}
    />
  );
}
