// Rulers along two edges of a canvas, and the grid.

export const width = 44;   // of the left ruler,
export const height = 22;  // and of the upper one, in pixels of the page

// A distance between marks that is at least so long: 1, 2 or 5 times a power of ten.
export function step(least) {
  const power = 10 ** Math.floor(Math.log10(Math.max(least, 1)));
  return [1, 2, 5, 10].map(times => times * power).find(distance => distance >= least);
}

// Where the picture's pixel 0,0 is on the canvas, how large a pixel is, and the canvas's size.
export function draw(context, { x, y, zoom, columns, rows, style, cross }) {
  const large = step(64 / zoom);
  const small = Math.max(1, large / (zoom * large >= 100 ? 10 : 5));
  context.save();
  context.font = '11px "DejaVu Sans Mono", monospace';
  context.fillStyle = style.paper;
  context.fillRect(0, 0, columns, height);
  context.fillRect(0, 0, width, rows);
  context.fillStyle = style.faint;
  context.textBaseline = "middle";
  const middle = zoom >= 4 ? zoom / 2 : 0;  // of a pixel
  const first = (origin, edge) => Math.floor((edge - origin) / zoom / small) * small;
  context.textAlign = "left";
  for (let i = first(x, width); x + i * zoom < columns; i += small) {
    const at = Math.round(x + i * zoom + middle);
    if (at < width) continue;
    const isLarge = i % large === 0;
    context.fillRect(at, height - (isLarge ? 9 : 4), 1, isLarge ? 9 : 4);
    if (isLarge) context.fillText(String(i), at + 3, 8);
  }
  context.textAlign = "right";
  for (let i = first(y, height); y + i * zoom < rows; i += small) {
    const at = Math.round(y + i * zoom + middle);
    if (at < height) continue;
    const isLarge = i % large === 0;
    context.fillRect(width - (isLarge ? 9 : 4), at, isLarge ? 9 : 4, 1);
    if (isLarge) context.fillText(String(i), width - 11, at);
  }
  if (cross) {
    context.fillStyle = style.accent;
    context.fillRect(Math.round(x + cross.x * zoom + middle), 0, Math.max(1, zoom >= 4 ? 1 : zoom), height);
    context.fillRect(0, Math.round(y + cross.y * zoom + middle), width, 1);
  }
  context.fillStyle = style.edge;
  context.fillRect(width - 1, 0, 1, rows);
  context.fillRect(0, height - 1, columns, 1);
  context.fillStyle = style.paper;
  context.fillRect(0, 0, width - 1, height - 1);
  context.restore();
}

export function grid(context, { x, y, zoom, columns, rows, size }) {
  const left = Math.max(0, Math.floor((width - x) / zoom));
  const top = Math.max(0, Math.floor((height - y) / zoom));
  const right = Math.min(size[0], Math.ceil((columns - x) / zoom));
  const bottom = Math.min(size[1], Math.ceil((rows - y) / zoom));
  for (const strong of [false, true]) {
    context.fillStyle = strong ? "rgba(255,255,255,.55)" : "rgba(128,128,128,.38)";
    for (let i = left; i <= right; ++i) {
      if ((i % 10 === 0) === strong) context.fillRect(x + i * zoom, y + top * zoom, 1, (bottom - top) * zoom);
    }
    for (let i = top; i <= bottom; ++i) {
      if ((i % 10 === 0) === strong) context.fillRect(x + left * zoom, y + i * zoom, (right - left) * zoom, 1);
    }
  }
}
