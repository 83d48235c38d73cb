import {
  Award, BadgeCheck, Bath, Bird, Bug, Calendar, Check, CircleCheck, Clock, CloudRain, Clover, Coffee, Droplet,
  Droplets, Feather, Fence, Flame, Flower, Flower2, Gift, Globe, Hammer, Hand, HandHeart, Heart, House, Layers, Leaf,
  Mail, MapPin, Moon, Mountain, Package, PackageOpen, Palette, Percent, Phone, Quote, Recycle, RefreshCw, Ruler, Scale,
  Scissors, Shell, ShieldCheck, ShoppingBag, Shovel, Smile, Snowflake, Sparkles, Sprout, Star, Store, Sun, Tag,
  Thermometer, TreeDeciduous, Truck, Umbrella, Users, Utensils, Weight, Wind, Wrench,
} from 'lucide'; // prettier-ignore
import { SVGPathData } from 'svg-pathdata';
import { ellipse, polygon, polyline, roundedRectangle, type PathCommand } from './outline';

type IconNode = readonly (readonly [tag: string, attributes: Record<string, string | number | undefined>])[];

/** Icons of the open Lucide set (ISC licence), by the name under which they are chosen. */
const NODES: Record<string, IconNode> = {
  leaf: Leaf, sprout: Sprout, flower: Flower, blossom: Flower2, clover: Clover, tree: TreeDeciduous, droplet: Droplet,
  droplets: Droplets, sun: Sun, moon: Moon, snowflake: Snowflake, rain: CloudRain, wind: Wind, thermometer: Thermometer,
  flame: Flame, mountain: Mountain, fence: Fence, bird: Bird, bug: Bug, feather: Feather, shell: Shell, gift: Gift,
  truck: Truck, package: Package, 'open package': PackageOpen, recycle: Recycle, renew: RefreshCw, hand: Hand,
  'hand with heart': HandHeart, heart: Heart, star: Star, sparkles: Sparkles, check: Check, 'check in a circle': CircleCheck,
  'check in a badge': BadgeCheck, award: Award, shield: ShieldCheck, ruler: Ruler, scales: Scale, weight: Weight,
  clock: Clock, calendar: Calendar, umbrella: Umbrella, shovel: Shovel, hammer: Hammer, wrench: Wrench,
  scissors: Scissors, palette: Palette, house: House, store: Store, bag: ShoppingBag, tag: Tag, percent: Percent,
  phone: Phone, mail: Mail, 'map pin': MapPin, globe: Globe, quote: Quote, people: Users, smile: Smile, cup: Coffee,
  cutlery: Utensils, bath: Bath, layers: Layers,
}; // prettier-ignore

export const ICONS: readonly string[] = Object.keys(NODES);

const drawn = new Map<string, PathCommand[]>();

/** An icon's lines in a square of 24, to be drawn with a pen of about 2. Throws a sentence for an unknown name. */
export function iconPath(name: string): PathCommand[] {
  let path = drawn.get(name);
  if (!path) {
    const node = NODES[name];
    if (!node) throw new Error(`There is no icon "${name}". The icons at hand are ${ICONS.join(', ')}.`);
    path = node.flatMap(([tag, attributes]) => nodePath(tag, attributes));
    drawn.set(name, path);
  }
  return path;
}

function nodePath(tag: string, attributes: Record<string, string | number | undefined>): PathCommand[] {
  const n = (key: string, otherwise = 0) => Number(attributes[key] ?? otherwise);
  switch (tag) {
    case 'path':
      return svgPath(String(attributes.d));
    case 'circle':
      return ellipse(n('cx'), n('cy'), n('r'));
    case 'ellipse':
      return ellipse(n('cx'), n('cy'), n('rx'), n('ry'));
    case 'rect':
      return roundedRectangle(
        { x: n('x'), y: n('y'), width: n('width'), height: n('height') },
        n('rx', n('ry')),
      );
    case 'line':
      return polyline([
        { x: n('x1'), y: n('y1') },
        { x: n('x2'), y: n('y2') },
      ]);
    default: {
      const values = String(attributes.points ?? '')
        .split(/[\s,]+/)
        .map(Number);
      const points = Array.from({ length: values.length / 2 }, (_, i) => ({
        x: values[2 * i],
        y: values[2 * i + 1],
      }));
      return tag === 'polygon' ? polygon(points) : polyline(points);
    }
  }
}

/** SVG path data as absolute commands; arcs become cubics. */
export function svgPath(data: string): PathCommand[] {
  const { commands } = new SVGPathData(data).toAbs().normalizeHVZ(false).normalizeST().aToC();
  return commands.map((c): PathCommand => {
    switch (c.type) {
      case SVGPathData.CLOSE_PATH:
        return { type: 'Z' };
      case SVGPathData.MOVE_TO:
        return { type: 'M', x: c.x, y: c.y };
      case SVGPathData.CURVE_TO:
        return { type: 'C', x1: c.x1, y1: c.y1, x2: c.x2, y2: c.y2, x: c.x, y: c.y };
      case SVGPathData.QUAD_TO:
        return { type: 'Q', x1: c.x1, y1: c.y1, x: c.x, y: c.y };
      default:
        return { type: 'L', x: (c as { x: number }).x, y: (c as { y: number }).y };
    }
  });
}
