import type { Photo } from '../src/api/client';
import { HASH, MOMENT } from './listing';

/** A photo with its cutout made, as the server lists it. */
export const photo = (id: string, name: string, over: Partial<Photo> = {}): Photo => ({
  id,
  name,
  format: 'jpeg',
  bytes: 2_400_000,
  width: 3000,
  height: 2000,
  original: HASH,
  working: HASH,
  notes: [],
  cutoutState: 'done',
  cutout: {
    picture: HASH,
    matte: HASH,
    width: 800,
    height: 600,
    bounds: { x: 0, y: 0, width: 800, height: 600 },
    confidence: 0.7,
    shadow: null,
    milliseconds: 900,
  },
  cutoutError: null,
  accepted: false,
  inUse: true,
  revision: 1,
  createdAt: MOMENT,
  ...over,
});
