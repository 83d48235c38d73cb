import { useEffect, useRef, useState } from 'react';

const GROUNDS = [
  ['white', '#ffffff'],
  ['black', '#000000'],
  ['bench', '#9c8262'],
] as const;
const ZOOM = 6;
const SIDE = 88;

/** The same place of the edge on white, on black and on a wooden tone, side by side. */
export function EdgeLoupe({
  source,
  bounds,
  at,
}: {
  source: string | null;
  bounds: { x: number; y: number; width: number; height: number } | null;
  at: { x: number; y: number } | null;
}) {
  const [image, setImage] = useState<HTMLImageElement | null>(null);
  useEffect(() => {
    setImage(null);
    if (!source) return;
    const next = new Image();
    next.onload = () => setImage(next);
    next.src = source;
    return () => {
      next.onload = null;
    };
  }, [source]);
  return (
    <div className="grid grid-cols-3 gap-1.5">
      {GROUNDS.map(([name, colour]) => (
        <Pane key={name} name={name} colour={colour} image={image} bounds={bounds} at={at} />
      ))}
    </div>
  );
}

function Pane({
  name,
  colour,
  image,
  bounds,
  at,
}: {
  name: string;
  colour: string;
  image: HTMLImageElement | null;
  bounds: { x: number; y: number; width: number; height: number } | null;
  at: { x: number; y: number } | null;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    context.fillStyle = colour;
    context.fillRect(0, 0, SIDE, SIDE);
    if (!image || !bounds || !at) return;
    context.imageSmoothingEnabled = false;
    context.drawImage(
      image,
      Math.round(SIDE / 2 - (at.x - bounds.x) * ZOOM),
      Math.round(SIDE / 2 - (at.y - bounds.y) * ZOOM),
      image.width * ZOOM,
      image.height * ZOOM,
    );
  }, [image, bounds, at, colour]);
  return (
    <figure className="border-line relative border">
      <canvas
        ref={canvas}
        width={SIDE}
        height={SIDE}
        className="block w-full"
        role="img"
        aria-label={`Edge on ${name}`}
      />
      <figcaption className="measure absolute bottom-1 left-1 rounded-sm bg-[#171b19b0] px-1 text-[10px] text-white">
        {name}
      </figcaption>
    </figure>
  );
}
