/** One connected group of set pixels. */
export interface Component {
  label: number;
  area: number;
  touchesBorder: boolean;
}

/**
 * Labels 4-connected groups of set pixels by flood fill. `labels` is 0 where nothing is set; the groups
 * are numbered from 1 in reading order.
 */
export function components(
  set: Uint8Array,
  width: number,
  height: number,
): { labels: Int32Array; list: Component[] } {
  const labels = new Int32Array(set.length);
  const list: Component[] = [];
  const stack = new Int32Array(set.length);
  for (let i = 0; i < set.length; i++) {
    if (!set[i] || labels[i]) continue;
    const group: Component = { label: list.length + 1, area: 0, touchesBorder: false };
    list.push(group);
    let top = 0;
    stack[top++] = i;
    labels[i] = group.label;
    while (top > 0) {
      const p = stack[--top];
      const x = p % width;
      const y = (p - x) / width;
      group.area++;
      if (x === 0 || y === 0 || x === width - 1 || y === height - 1) group.touchesBorder = true;
      const visit = (q: number) => {
        if (set[q] && !labels[q]) {
          labels[q] = group.label;
          stack[top++] = q;
        }
      };
      if (x > 0) visit(p - 1);
      if (x < width - 1) visit(p + 1);
      if (y > 0) visit(p - width);
      if (y < height - 1) visit(p + width);
    }
  }
  return { labels, list };
}
