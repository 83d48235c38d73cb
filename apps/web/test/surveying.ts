import type * as real from '../src/workers/surveying';

type Real = typeof real;

/** Stands in for the worker that looks at a surveyed picture: it sees what a test tells it to. */
export const seeing = {
  corners: [] as Awaited<ReturnType<Real['cornersSeen']>>,
  bulge: null as Awaited<ReturnType<Real['bulgeSeen']>>,
  /** The areas whose bulge was asked for. */
  asked: [] as Parameters<Real['bulgeSeen']>[1][],
  shade: (() => Promise.resolve([])) as Real['shadeSeen'],
  groundEdge: (() => Promise.resolve(null)) as Real['groundEdgeSeen'],
  focus: (() => Promise.resolve(null)) as Real['focusSeen'],
  side: (() => Promise.resolve(null)) as Real['sideSeen'],
  edges: ((_, edges) => Promise.resolve(edges)) as Real['edgesSeen'],
};

export const cornersSeen: Real['cornersSeen'] = () => Promise.resolve(seeing.corners);
export const bulgeSeen: Real['bulgeSeen'] = (_, area) => {
  seeing.asked.push(area);
  return Promise.resolve(seeing.bulge);
};
export const edgesSeen: Real['edgesSeen'] = (...asked) => seeing.edges(...asked);
export const shadeSeen: Real['shadeSeen'] = (...asked) => seeing.shade(...asked);
export const focusSeen: Real['focusSeen'] = (...asked) => seeing.focus(...asked);
export const sideSeen: Real['sideSeen'] = (...asked) => seeing.side(...asked);
export const groundEdgeSeen: Real['groundEdgeSeen'] = (...asked) => seeing.groundEdge(...asked);
