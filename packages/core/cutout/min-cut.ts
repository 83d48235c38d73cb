/**
 * Minimum cut on an 8-connected pixel grid by augmenting paths in two search trees (Boykov and Kolmogorov
 * 2004, "An experimental comparison of min-cut/max-flow algorithms for energy minimization in vision").
 */

/** Neighbour steps: east, west, south, north, south-east, north-west, south-west, north-east. d ^ 1 is the way back. */
const DX = [1, -1, 0, 0, 1, -1, -1, 1];
const DY = [0, 0, 1, -1, 1, -1, 1, -1];

const TERMINAL = 8;
const ORPHAN = 9;
const NONE = 10;
const FREE = 0;
const SOURCE = 1;
const SINK = 2;

export interface GridGraph {
  width: number;
  height: number;
  /** Cost of the source label minus cost of the sink label is decided by these: one value a pixel, >= 0. */
  sourceCapacity: Float32Array;
  sinkCapacity: Float32Array;
  /** Cost of separating a pixel from its neighbour to the E, S, SE and SW, one plane each, >= 0. */
  east: Float32Array;
  south: Float32Array;
  southEast: Float32Array;
  southWest: Float32Array;
  /** The pixels that take part, by index; all when left out. The others stay unconnected and get label 0. */
  active?: Int32Array;
}

/** Labels every pixel 1 (source side) or 0 (sink side) at least total cost. Work grows with the number of uncertain pixels. */
export function minCut(graph: GridGraph): Uint8Array {
  const { width, height, active } = graph;
  // A ring of unconnected cells around the grid spares every bounds test.
  const w = width + 2;
  const n = w * (height + 2);
  const cap = Array.from({ length: 8 }, () => new Float32Array(n));
  const tr = new Float32Array(n);
  const off = DX.map((dx, d) => dx + DY[d] * w);
  const planes = [graph.east, graph.south, graph.southEast, graph.southWest];
  const connect = (i: number) => {
    const x = i % width;
    const y = (i - x) / width;
    const p = (y + 1) * w + x + 1;
    tr[p] = graph.sourceCapacity[i] - graph.sinkCapacity[i];
    for (let k = 0; k < 4; k++) {
      const nx = x + DX[2 * k];
      const ny = y + DY[2 * k];
      if (nx < 0 || ny < 0 || nx >= width || ny >= height) continue;
      cap[2 * k][p] = planes[k][i];
      cap[2 * k + 1][p + off[2 * k]] = planes[k][i];
    }
  };
  const count = active ? active.length : width * height;
  for (let k = 0; k < count; k++) connect(active ? active[k] : k);

  const tree = new Uint8Array(n);
  const parent = new Uint8Array(n).fill(NONE);
  const stamp = new Int32Array(n);
  const dist = new Int32Array(n);
  const queued = new Uint8Array(n);
  const queue = new Int32Array(n + 1);
  let head = 0;
  let tail = 0;
  const activate = (p: number) => {
    if (queued[p]) return;
    queued[p] = 1;
    queue[tail] = p;
    tail = tail === n ? 0 : tail + 1;
  };
  const orphans: number[] = [];
  let time = 0;

  for (let k = 0; k < count; k++) {
    const i = active ? active[k] : k;
    const p = (Math.floor(i / width) + 1) * w + (i % width) + 1;
    if (tr[p] === 0) continue;
    tree[p] = tr[p] > 0 ? SOURCE : SINK;
    parent[p] = TERMINAL;
    dist[p] = 1;
    activate(p);
  }

  const makeOrphan = (p: number) => {
    parent[p] = ORPHAN;
    orphans.push(p);
  };

  /** Pushes flow along source ... p -d-> q ... sink and orphans what it saturates. */
  const augment = (p: number, d: number) => {
    const q = p + off[d];
    let flow = cap[d][p];
    for (let i = p; ;) {
      const a = parent[i];
      if (a === TERMINAL) {
        flow = Math.min(flow, tr[i]);
        break;
      }
      const j = i + off[a];
      flow = Math.min(flow, cap[a ^ 1][j]);
      i = j;
    }
    for (let i = q; ;) {
      const a = parent[i];
      if (a === TERMINAL) {
        flow = Math.min(flow, -tr[i]);
        break;
      }
      flow = Math.min(flow, cap[a][i]);
      i += off[a];
    }
    cap[d][p] -= flow;
    cap[d ^ 1][q] += flow;
    for (let i = p; ;) {
      const a = parent[i];
      if (a === TERMINAL) {
        tr[i] -= flow;
        if (tr[i] <= 0) makeOrphan(i);
        break;
      }
      const j = i + off[a];
      cap[a][i] += flow;
      cap[a ^ 1][j] -= flow;
      if (cap[a ^ 1][j] <= 0) makeOrphan(i);
      i = j;
    }
    for (let i = q; ;) {
      const a = parent[i];
      if (a === TERMINAL) {
        tr[i] += flow;
        if (tr[i] >= 0) makeOrphan(i);
        break;
      }
      const j = i + off[a];
      cap[a ^ 1][j] += flow;
      cap[a][i] -= flow;
      if (cap[a][i] <= 0) makeOrphan(i);
      i = j;
    }
  };

  /** Finds the orphan a new parent in its tree, or frees it. */
  const adopt = (p: number) => {
    const side = tree[p];
    let best = NONE;
    let bestDist = 0x7fffffff;
    for (let d = 0; d < 8; d++) {
      const q = p + off[d];
      const residual = side === SOURCE ? cap[d ^ 1][q] : cap[d][p];
      if (!(residual > 0) || tree[q] !== side) continue;
      // Walk to the root to see whether q still hangs on a terminal.
      let steps = 0;
      let i = q;
      let rooted = false;
      for (;;) {
        if (stamp[i] === time) {
          steps += dist[i];
          rooted = true;
          break;
        }
        const a = parent[i];
        steps++;
        if (a === TERMINAL) {
          stamp[i] = time;
          dist[i] = 1;
          rooted = true;
          break;
        }
        if (a === ORPHAN || a === NONE) break;
        i += off[a];
      }
      if (!rooted) continue;
      if (steps < bestDist) {
        best = d;
        bestDist = steps;
      }
      for (let k = q; stamp[k] !== time; k += off[parent[k]]) {
        stamp[k] = time;
        dist[k] = steps--;
      }
    }
    if (best !== NONE) {
      parent[p] = best;
      stamp[p] = time;
      dist[p] = bestDist + 1;
      return;
    }
    parent[p] = NONE;
    tree[p] = FREE;
    for (let d = 0; d < 8; d++) {
      const q = p + off[d];
      if (tree[q] !== side) continue;
      const residual = side === SOURCE ? cap[d ^ 1][q] : cap[d][p];
      if (residual > 0) activate(q);
      const a = parent[q];
      if (a < 8 && q + off[a] === p) makeOrphan(q);
    }
  };

  while (head !== tail) {
    const p = queue[head];
    const side = tree[p];
    let found = NONE;
    if (side !== FREE) {
      for (let d = 0; d < 8; d++) {
        const q = p + off[d];
        const residual = side === SOURCE ? cap[d][p] : cap[d ^ 1][q];
        if (!(residual > 0)) continue;
        if (tree[q] === FREE) {
          tree[q] = side;
          parent[q] = d ^ 1;
          stamp[q] = stamp[p];
          dist[q] = dist[p] + 1;
          activate(q);
        } else if (tree[q] !== side) {
          found = d;
          break;
        } else if (stamp[q] <= stamp[p] && dist[q] > dist[p]) {
          parent[q] = d ^ 1;
          stamp[q] = stamp[p];
          dist[q] = dist[p] + 1;
        }
      }
    }
    if (found === NONE) {
      head = head === n ? 0 : head + 1;
      queued[p] = 0;
      continue;
    }
    time++;
    if (side === SOURCE) augment(p, found);
    else augment(p + off[found], found ^ 1);
    while (orphans.length) adopt(orphans.pop()!);
  }

  const labels = new Uint8Array(width * height);
  for (let k = 0; k < count; k++) {
    const i = active ? active[k] : k;
    labels[i] = tree[(Math.floor(i / width) + 1) * w + (i % width) + 1] === SOURCE ? 1 : 0;
  }
  return labels;
}
