// The picture: whole multiples without smoothing, dragged, with a cross-hair, measured, with points to be moved.

import * as rulers from "./rulers.js";

const multiples = [1, 2, 3, 4, 5, 6, 8, 10, 12, 16, 20, 24, 32, 40, 48, 64];
const zooms = [...multiples.slice(1).reverse().map(n => 1 / n), ...multiples];
const near = 7;  // a point is taken hold of from so far away

export class PictureView {
  // Tells: hover(pixel or null), pick(pixel), measured({from, to} or null), move(point, pixel), moved(point), zoomed(zoom).
  constructor(canvas, tell) {
    Object.assign(this, { canvas, tell, size: null, zoom: 1, x: rulers.width, y: rulers.height, isFitted: true,
      hasGrid: true, isMeasuring: false, cross: null, measure: null, outline: null, points: [], held: null });
    this.context = canvas.getContext("2d");
    this.pointers = new Map();
    new ResizeObserver(() => this.resize()).observe(canvas.parentElement);
    matchMedia("(prefers-color-scheme: dark)").addEventListener("change", () => this.paint());
    for (const name of ["pointerdown", "pointermove", "pointerup", "pointercancel", "pointerleave", "wheel", "keydown"]) {
      canvas.addEventListener(name, event => this[name](event), { passive: false });
    }
  }

  // The pixels of the picture, or fewer of it, to be shown as large as it.
  show(pixels, shown, size) {
    const isOther = !this.size || this.size[0] !== size[0] || this.size[1] !== size[1];
    this.pixels = pixels;
    this.shown = shown;
    this.size = size;
    this.image = new OffscreenCanvas(shown[0], shown[1]);
    this.image.getContext("2d").putImageData(new ImageData(pixels, shown[0], shown[1]), 0, 0);
    if (isOther && this.isFitted) this.fit();
    this.paint();
  }

  // The channels of a pixel.
  color([x, y]) {
    const column = Math.floor(x * this.shown[0] / this.size[0]);
    const row = Math.floor(y * this.shown[1] / this.size[1]);
    const at = 4 * (row * this.shown[0] + column);
    return [...this.pixels.slice(at, at + 4)];
  }

  contains([x, y]) { return this.size && x >= 0 && y >= 0 && x < this.size[0] && y < this.size[1]; }

  resize() {
    const { width, height } = this.canvas.parentElement.getBoundingClientRect();
    const ratio = window.devicePixelRatio || 1;
    this.columns = Math.floor(width);
    this.rows = Math.floor(height);
    this.canvas.width = Math.round(this.columns * ratio);
    this.canvas.height = Math.round(this.rows * ratio);
    this.context.setTransform(ratio, 0, 0, ratio, 0, 0);
    if (this.isFitted) this.fit();
    this.paint();
  }

  fit() {
    this.isFitted = true;
    if (!this.size || !this.columns) return;
    const room = [this.columns - rulers.width - 4, this.rows - rulers.height - 4];
    const most = Math.min(room[0] / this.size[0], room[1] / this.size[1]);
    this.zoom = most < 1 ? most : zooms.filter(zoom => zoom <= most).pop();
    this.x = rulers.width + Math.max(0, Math.floor((room[0] - this.size[0] * this.zoom) / 2));
    this.y = rulers.height + Math.max(0, Math.floor((room[1] - this.size[1] * this.zoom) / 2));
    this.tell.zoomed(this.zoom);
    this.paint();
  }

  // To another zoom, so that what is at a place of the canvas stays there.
  zoomTo(zoom, place = [this.columns / 2, this.rows / 2]) {
    if (!this.size) return;
    this.isFitted = false;
    const [px, py] = [(place[0] - this.x) / this.zoom, (place[1] - this.y) / this.zoom];
    this.zoom = zoom;
    this.x = Math.round(place[0] - px * zoom);
    this.y = Math.round(place[1] - py * zoom);
    this.tell.zoomed(zoom);
    this.paint();
  }

  zoomBy(steps, place) {
    const next = steps > 0 ? zooms.filter(zoom => zoom > this.zoom + 1e-9).slice(0, steps).pop()
      : zooms.filter(zoom => zoom < this.zoom - 1e-9).slice(steps)[0];
    if (next) this.zoomTo(next, place);
  }

  pixelAt([left, top]) { return [Math.floor((left - this.x) / this.zoom), Math.floor((top - this.y) / this.zoom)]; }
  middleOf([x, y]) { return [this.x + (x + 0.5) * this.zoom, this.y + (y + 0.5) * this.zoom]; }

  setCross(pixel) {
    this.cross = pixel && this.contains(pixel) ? pixel : null;
    this.tell.hover(this.cross);
    this.paint();
  }

  setMeasuring(on) {
    this.isMeasuring = on;
    if (!on) this.setMeasure(null);
  }
  setMeasure(measure) {
    this.measure = measure;
    this.tell.measured(measure);
    this.paint();
  }
  setOutline(spans) {
    this.outline = spans && spans.length > 0 ? outlineOf(spans) : null;
    this.paint();
  }
  setPoints(points) {
    this.points = points;
    this.paint();
  }

  place(event) {
    const box = this.canvas.getBoundingClientRect();
    return [event.clientX - box.left, event.clientY - box.top];
  }

  pointerdown(event) {
    if (!this.size || event.button > 1) return;
    this.canvas.focus();
    this.canvas.setPointerCapture(event.pointerId);
    const place = this.place(event);
    this.pointers.set(event.pointerId, place);
    if (this.pointers.size === 2) return this.beginPinch();
    const held = this.points.findIndex(point => Math.hypot(...[0, 1].map(i => this.middleOf([point.x, point.y])[i] - place[i])) <= near);
    const pixel = this.pixelAt(place);
    this.begun = { place, pixel, at: [this.x, this.y], hasMoved: false };
    this.held = held >= 0 ? held : null;
    if (this.held === null && (this.isMeasuring || event.shiftKey)) this.setMeasure({ from: pixel, to: pixel });
  }

  pointermove(event) {
    if (!this.size) return;
    const place = this.place(event);
    const pixel = this.pixelAt(place);
    if (this.pointers.has(event.pointerId)) this.pointers.set(event.pointerId, place);
    if (this.pointers.size === 2) return this.pinch();
    if (this.begun && event.buttons) {
      const away = [place[0] - this.begun.place[0], place[1] - this.begun.place[1]];
      this.begun.hasMoved ||= Math.hypot(...away) > 3;
      if (this.held !== null) this.tell.move(this.points[this.held], pixel);
      else if (this.measure && (this.isMeasuring || event.shiftKey)) this.setMeasure({ from: this.begun.pixel, to: pixel });
      else if (this.begun.hasMoved) {
        this.isFitted = false;
        [this.x, this.y] = [Math.round(this.begun.at[0] + away[0]), Math.round(this.begun.at[1] + away[1])];
      }
    }
    this.setCross(pixel);
  }

  pointerup(event) {
    this.pointers.delete(event.pointerId);
    const begun = this.begun;
    this.begun = null;
    if (this.held !== null) {
      this.tell.moved(this.points[this.held]);
      this.held = null;
      return;
    }
    const isClick = begun && !begun.hasMoved && !(this.isMeasuring || event.shiftKey);
    if (isClick && this.contains(begun.pixel)) this.tell.pick(begun.pixel);
  }
  pointercancel(event) {
    this.pointers.delete(event.pointerId);
    this.begun = this.held = null;
  }
  pointerleave() { if (!this.begun && document.activeElement !== this.canvas) this.setCross(null); }

  beginPinch() {
    const [a, b] = [...this.pointers.values()];
    this.begun = null;
    this.pinched = { apart: Math.hypot(a[0] - b[0], a[1] - b[1]), zoom: this.zoom };
  }
  pinch() {
    const [a, b] = [...this.pointers.values()];
    const wanted = this.pinched.zoom * Math.hypot(a[0] - b[0], a[1] - b[1]) / Math.max(1, this.pinched.apart);
    const zoom = zooms.reduce((best, one) => (Math.abs(Math.log(one / wanted)) < Math.abs(Math.log(best / wanted)) ? one : best));
    if (zoom !== this.zoom) this.zoomTo(zoom, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]);
  }

  wheel(event) {
    event.preventDefault();
    this.turned = (this.turned ?? 0) + event.deltaY;
    if (Math.abs(this.turned) < 40) return;
    this.zoomBy(this.turned < 0 ? 1 : -1, this.place(event));
    this.turned = 0;
  }

  keydown(event) {
    if (!this.size || event.ctrlKey || event.metaKey || event.altKey) return;
    const by = event.shiftKey ? 10 : 1;
    const ways = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] };
    const from = this.cross ?? [Math.floor(this.size[0] / 2), Math.floor(this.size[1] / 2)];
    if (ways[event.key]) {
      const to = this.cross ? [0, 1].map(i => Math.min(this.size[i] - 1, Math.max(0, from[i] + ways[event.key][i]))) : from;
      this.setCross(to);
      if (this.isMeasuring && this.measure) this.setMeasure({ from: this.measure.from, to });
      this.bringIntoView(to);
    } else if (event.key === "Enter") this.tell.pick(from);
    else if (event.key === "+" || event.key === "=") this.zoomBy(1, this.middleOf(from));
    else if (event.key === "-") this.zoomBy(-1, this.middleOf(from));
    else if (event.key === "0") this.fit();
    else if (event.key === "1") this.zoomTo(1, this.middleOf(from));
    else if (!this.tell.key(event.key.toLowerCase(), from)) return;
    event.preventDefault();
  }

  bringIntoView(pixel) {
    const [left, top] = this.middleOf(pixel);
    const over = (at, least, most) => (at < least ? least - at : at > most ? most - at : 0);
    this.x += Math.round(over(left, rulers.width + 20, this.columns - 20));
    this.y += Math.round(over(top, rulers.height + 20, this.rows - 20));
    this.paint();
  }

  // Once for all changes until the next frame.
  paint() {
    if (this.isAsked) return;
    this.isAsked = true;
    requestAnimationFrame(() => {
      this.isAsked = false;
      this.paintNow();
    });
  }

  paintNow() {
    const { context, x, y, zoom, columns, rows, size } = this;
    const style = Object.fromEntries(["paper", "faint", "edge", "accent", "well"].map(name =>
      [name, getComputedStyle(document.documentElement).getPropertyValue("--" + name)]));
    context.fillStyle = style.well;
    context.fillRect(0, 0, columns, rows);
    if (!size) return;
    this.paintSquares();
    context.imageSmoothingEnabled = zoom < 1;
    context.drawImage(this.image, x, y, size[0] * zoom, size[1] * zoom);
    if (this.hasGrid && zoom >= 6) rulers.grid(context, { x, y, zoom, columns, rows, size });
    this.paintMarks(style);
    rulers.draw(context, { x, y, zoom, columns, rows, style, cross: this.cross });
    this.canvas.dataset.origin = `${x},${y}`;
    this.canvas.dataset.painted = String(Number(this.canvas.dataset.painted ?? 0) + 1);
  }

  // What is behind transparent pixels.
  paintSquares() {
    const { context, x, y, zoom, size } = this;
    context.save();
    context.beginPath();
    context.rect(x, y, size[0] * zoom, size[1] * zoom);
    context.clip();
    const side = 8;
    const [right, bottom] = [Math.min(this.columns, x + size[0] * zoom), Math.min(this.rows, y + size[1] * zoom)];
    for (let top = Math.max(0, y); top < bottom; top += side) {
      for (let left = Math.max(0, x); left < right; left += side) {
        context.fillStyle = (Math.floor((left - x) / side) + Math.floor((top - y) / side)) % 2 ? "#999" : "#666";
        context.fillRect(left, top, side, side);
      }
    }
    context.restore();
  }

  paintMarks(style) {
    const { context, x, y, zoom } = this;
    if (this.outline) {
      context.save();
      context.translate(x, y);
      context.scale(zoom, zoom);
      for (const [color, width, dash] of [["#000", 3, []], ["#fff", 1.5, []], [style.accent, 1.5, [4, 4]]]) {
        context.strokeStyle = color;
        context.lineWidth = width / zoom;
        context.setLineDash(dash.map(length => length / zoom));
        context.stroke(this.outline);
      }
      context.restore();
    }
    for (const point of this.points) {
      const [left, top] = this.middleOf([point.x, point.y]);
      context.beginPath();
      context.arc(left, top, 5, 0, 7);
      context.fillStyle = style.accent;
      context.fill();
      context.strokeStyle = "#fff";
      context.lineWidth = 1.5;
      context.stroke();
    }
    if (this.measure) this.paintMeasure(style);
    if (this.cross) {
      const [left, top] = [x + this.cross[0] * zoom, y + this.cross[1] * zoom];
      const wide = Math.max(1, zoom);
      context.fillStyle = "rgba(128,128,128,.35)";
      context.fillRect(left, 0, wide, this.rows);
      context.fillRect(0, top, this.columns, wide);
    }
  }

  paintMeasure(style) {
    const { context } = this;
    const { from, to } = this.measure;
    const [a, b] = [this.middleOf(from), this.middleOf(to)];
    context.strokeStyle = style.accent;
    context.lineWidth = 1.5;
    context.beginPath();
    context.moveTo(...a);
    context.lineTo(...b);
    context.stroke();
    const least = [0, 1].map(i => Math.min(from[i], to[i]));
    const most = [0, 1].map(i => Math.max(from[i], to[i]) + 1);
    context.setLineDash([3, 3]);
    context.strokeRect(this.x + least[0] * this.zoom, this.y + least[1] * this.zoom,
      (most[0] - least[0]) * this.zoom, (most[1] - least[1]) * this.zoom);
    context.setLineDash([]);
  }
}

// The edges between pixels inside and outside of spans [y, x, length], which come row by row.
function outlineOf(spans) {
  const path = new Path2D();
  const rows = new Map();
  for (const [y, x, length] of spans) {
    if (!rows.has(y)) rows.set(y, []);
    rows.get(y).push(x, x + length);
    path.moveTo(x, y);
    path.lineTo(x, y + 1);
    path.moveTo(x + length, y);
    path.lineTo(x + length, y + 1);
  }
  const between = (above, below, y) => {
    const ends = [...above, ...below].sort((a, b) => a - b);
    for (let i = 0; i + 1 < ends.length; i += 2) {
      if (ends[i] === ends[i + 1]) continue;
      path.moveTo(ends[i], y);
      path.lineTo(ends[i + 1], y);
    }
  };
  for (const [y, ends] of rows) {
    between(rows.get(y - 1) ?? [], ends, y);
    if (!rows.has(y + 1)) between(ends, [], y + 1);
  }
  return path;
}
