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
  const lastRow = (height - 1) * width;
  for (let i = 0; i < set.length; i++) {
    if (!set[i] || labels[i]) continue;
    const label = list.length + 1;
    let area = 0;
    let touchesBorder = false;
    let top = 0;
    stack[top++] = i;
    labels[i] = label;
    while (top > 0) {
      const p = stack[--top];
      const x = p % width;
      area++;
      if (x === 0 || x === width - 1 || p < width || p >= lastRow) touchesBorder = true;
      if (x > 0 && set[p - 1] && !labels[p - 1]) {
        labels[p - 1] = label;
        stack[top++] = p - 1;
      }
      if (x < width - 1 && set[p + 1] && !labels[p + 1]) {
        labels[p + 1] = label;
        stack[top++] = p + 1;
      }
      if (p >= width && set[p - width] && !labels[p - width]) {
        labels[p - width] = label;
        stack[top++] = p - width;
      }
      if (p < lastRow && set[p + width] && !labels[p + width]) {
        labels[p + width] = label;
        stack[top++] = p + width;
      }
    }
    list.push({ label, area, touchesBorder });
  }
  return { labels, list };
}
