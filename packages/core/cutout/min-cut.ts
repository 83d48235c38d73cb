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
  const trees = new SearchTrees(width, height);
  const count = active ? active.length : width * height;
  const pixel = (k: number) => (active ? active[k] : k);
  for (let k = 0; k < count; k++) trees.connect(graph, pixel(k));
  for (let k = 0; k < count; k++) trees.plant(pixel(k));
  trees.saturate();
  const labels = new Uint8Array(width * height);
  for (let k = 0; k < count; k++) labels[pixel(k)] = trees.onSourceSide(pixel(k)) ? 1 : 0;
  return labels;
}

/** Two trees of residual edges, one grown from the source and one from the sink, until no path joins them. */
class SearchTrees {
  // A ring of unconnected cells around the grid spares every bounds test.
  private readonly w: number;
  private readonly off: number[];
  /** What an edge in each of the eight directions can still carry, and what a cell's terminal can: above 0 the source's. */
  private readonly cap: Float32Array[];
  private readonly tr: Float32Array;
  private readonly tree: Uint8Array;
  /** The direction in which a cell's parent lies, or TERMINAL, ORPHAN, NONE. */
  private readonly parent: Uint8Array;
  /** When a cell's distance to its terminal was last found, and that distance. */
  private readonly stamp: Int32Array;
  private readonly dist: Int32Array;
  private time = 0;
  private readonly orphans: number[] = [];
  /** Cells at the trees' rims, in a ring buffer; each stands in it once at most. */
  private readonly queue: Int32Array;
  private readonly queued: Uint8Array;
  private head = 0;
  private tail = 0;

  constructor(
    private readonly width: number,
    private readonly height: number,
  ) {
    this.w = width + 2;
    const n = this.w * (height + 2);
    this.off = DX.map((dx, d) => dx + DY[d] * this.w);
    this.cap = Array.from({ length: 8 }, () => new Float32Array(n));
    this.tr = new Float32Array(n);
    this.tree = new Uint8Array(n);
    this.parent = new Uint8Array(n).fill(NONE);
    this.stamp = new Int32Array(n);
    this.dist = new Int32Array(n);
    this.queue = new Int32Array(n + 1);
    this.queued = new Uint8Array(n);
  }

  private cell(i: number): number {
    return (Math.floor(i / this.width) + 1) * this.w + (i % this.width) + 1;
  }

  /** Takes over what the graph says of pixel `i`: its terminals, and its edges to the E, S, SE and SW. */
  connect(graph: GridGraph, i: number): void {
    const { width, height, cap, off } = this;
    const planes = [graph.east, graph.south, graph.southEast, graph.southWest];
    const x = i % width;
    const y = (i - x) / width;
    const p = this.cell(i);
    this.tr[p] = graph.sourceCapacity[i] - graph.sinkCapacity[i];
    for (let k = 0; k < 4; k++) {
      const nx = x + DX[2 * k];
      const ny = y + DY[2 * k];
      if (nx < 0 || ny < 0 || nx >= width || ny >= height) continue;
      cap[2 * k][p] = planes[k][i];
      cap[2 * k + 1][p + off[2 * k]] = planes[k][i];
    }
  }

  /** A pixel that leans to either side becomes a root of that side's tree. */
  plant(i: number): void {
    const p = this.cell(i);
    if (this.tr[p] === 0) return;
    this.tree[p] = this.tr[p] > 0 ? SOURCE : SINK;
    this.parent[p] = TERMINAL;
    this.dist[p] = 1;
    this.activate(p);
  }

  onSourceSide(i: number): boolean {
    return this.tree[this.cell(i)] === SOURCE;
  }

  /** Grows both trees, and pushes flow wherever they meet, until they no longer do. */
  saturate(): void {
    const { queue, queued, tree, off, orphans } = this;
    while (this.head !== this.tail) {
      const p = queue[this.head];
      const found = this.growFrom(p);
      if (found === NONE) {
        this.head = this.head === queue.length - 1 ? 0 : this.head + 1;
        queued[p] = 0;
        continue;
      }
      this.time++;
      if (tree[p] === SOURCE) this.augment(p, found);
      else this.augment(p + off[found], found ^ 1);
      while (orphans.length) this.adopt(orphans.pop()!);
    }
  }

  private activate(p: number): void {
    if (this.queued[p]) return;
    this.queued[p] = 1;
    this.queue[this.tail] = p;
    this.tail = this.tail === this.queue.length - 1 ? 0 : this.tail + 1;
  }

  private makeOrphan(p: number): void {
    this.parent[p] = ORPHAN;
    this.orphans.push(p);
  }

  /** Takes a cell's free neighbours into its tree; the direction in which the other tree is met, or NONE. */
  private growFrom(p: number): number {
    const { tree, cap, off, parent, stamp, dist } = this;
    const side = tree[p];
    if (side === FREE) return NONE;
    for (let d = 0; d < 8; d++) {
      const q = p + off[d];
      const residual = side === SOURCE ? cap[d][p] : cap[d ^ 1][q];
      if (!(residual > 0)) continue;
      if (tree[q] === FREE) {
        tree[q] = side;
        parent[q] = d ^ 1;
        stamp[q] = stamp[p];
        dist[q] = dist[p] + 1;
        this.activate(q);
      } else if (tree[q] !== side) return d;
      else if (stamp[q] <= stamp[p] && dist[q] > dist[p]) {
        parent[q] = d ^ 1;
        stamp[q] = stamp[p];
        dist[q] = dist[p] + 1;
      }
    }
    return NONE;
  }

  /** Pushes flow along source ... p -d-> q ... sink and orphans what it saturates. */
  private augment(p: number, d: number): void {
    const { cap, off } = this;
    const q = p + off[d];
    const flow = this.leastToSink(q, this.leastToSource(p, cap[d][p]));
    cap[d][p] -= flow;
    cap[d ^ 1][q] += flow;
    this.pushToSource(p, flow);
    this.pushToSink(q, flow);
  }

  private leastToSource(i: number, flow: number): number {
    const { cap, off, parent, tr } = this;
    for (;;) {
      const a = parent[i];
      if (a === TERMINAL) return Math.min(flow, tr[i]);
      i += off[a];
      flow = Math.min(flow, cap[a ^ 1][i]);
    }
  }

  private leastToSink(i: number, flow: number): number {
    const { cap, off, parent, tr } = this;
    for (;;) {
      const a = parent[i];
      if (a === TERMINAL) return Math.min(flow, -tr[i]);
      flow = Math.min(flow, cap[a][i]);
      i += off[a];
    }
  }

  private pushToSource(i: number, flow: number): void {
    const { cap, off, parent, tr } = this;
    for (;;) {
      const a = parent[i];
      if (a === TERMINAL) {
        tr[i] -= flow;
        if (tr[i] <= 0) this.makeOrphan(i);
        return;
      }
      const j = i + off[a];
      cap[a][i] += flow;
      cap[a ^ 1][j] -= flow;
      if (cap[a ^ 1][j] <= 0) this.makeOrphan(i);
      i = j;
    }
  }

  private pushToSink(i: number, flow: number): void {
    const { cap, off, parent, tr } = this;
    for (;;) {
      const a = parent[i];
      if (a === TERMINAL) {
        tr[i] += flow;
        if (tr[i] >= 0) this.makeOrphan(i);
        return;
      }
      const j = i + off[a];
      cap[a ^ 1][j] += flow;
      cap[a][i] -= flow;
      if (cap[a][i] <= 0) this.makeOrphan(i);
      i = j;
    }
  }

  /** Finds the orphan a new parent in its tree, the one nearest to a terminal, or frees it. */
  private adopt(p: number): void {
    const { cap, off, tree, parent, stamp, dist, time } = this;
    const side = tree[p];
    let best = NONE;
    let bestDist = 0x7fffffff;
    for (let d = 0; d < 8; d++) {
      const q = p + off[d];
      const residual = side === SOURCE ? cap[d ^ 1][q] : cap[d][p];
      if (!(residual > 0) || tree[q] !== side) continue;
      const steps = this.distanceToRoot(q);
      if (!steps) continue;
      if (steps < bestDist) {
        best = d;
        bestDist = steps;
      }
      for (let k = q, left = steps; stamp[k] !== time; k += off[parent[k]]) {
        stamp[k] = time;
        dist[k] = left--;
      }
    }
    if (best === NONE) {
      this.release(p);
      return;
    }
    parent[p] = best;
    stamp[p] = time;
    dist[p] = bestDist + 1;
  }

  /** Steps from a cell to its terminal; 0 where it no longer hangs on one. */
  private distanceToRoot(i: number): number {
    const { off, parent, stamp, dist, time } = this;
    for (let steps = 0; ;) {
      if (stamp[i] === time) return steps + dist[i];
      const a = parent[i];
      steps++;
      if (a === TERMINAL) {
        stamp[i] = time;
        dist[i] = 1;
        return steps;
      }
      if (a === ORPHAN || a === NONE) return 0;
      i += off[a];
    }
  }

  /** Leaves a cell without a tree: its children become orphans, its neighbours may grow to it again. */
  private release(p: number): void {
    const { cap, off, tree, parent } = this;
    const side = tree[p];
    parent[p] = NONE;
    tree[p] = FREE;
    for (let d = 0; d < 8; d++) {
      const q = p + off[d];
      if (tree[q] !== side) continue;
      const residual = side === SOURCE ? cap[d ^ 1][q] : cap[d][p];
      if (residual > 0) this.activate(q);
      const a = parent[q];
      if (a < 8 && q + off[a] === p) this.makeOrphan(q);
    }
  }
}
