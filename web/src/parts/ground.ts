/** How a drawing of ground lies on its sheet: metres to units, y upward. */
export interface Frame {
  width: number;
  height: number;
  scale: number;
  x: (v: number) => number;
  y: (v: number) => number;
}

/** A frame that holds a box of ground with a margin around it. */
export function frame(
  box: { left: number; bottom: number; right: number; top: number },
  width: number,
  most: number,
  margin = 30,
): Frame {
  const wide = Math.max(box.right - box.left, 0.01);
  const high = Math.max(box.top - box.bottom, 0.01);
  const scale = Math.min((width - 2 * margin) / wide, most / high);
  const indent = (width - wide * scale) / 2;
  return {
    width,
    height: high * scale + 2 * margin + 24,
    scale,
    x: (v) => indent + (v - box.left) * scale,
    y: (v) => margin + (box.top - v) * scale,
  };
}

/** A closed path of points. */
export const closed = (f: Frame, ring: { x: number; y: number }[]) => `${open(f, ring)}Z`;

/** An open path of points. */
export const open = (f: Frame, line: { x: number; y: number }[]) =>
  line.map((p, i) => `${i ? "L" : "M"}${f.x(p.x).toFixed(1)} ${f.y(p.y).toFixed(1)}`).join("");

/** A round length for a scale bar: 1, 2 or 5 times a power of ten, in feet or metres. */
export function bar(span: number, us: boolean) {
  const unit = us ? 0.3048 : 1;
  const raw = span / unit / 3.5;
  const power = 10 ** Math.floor(Math.log10(raw));
  const digit = [5, 2, 1].find((d) => d * power <= raw) ?? 1;
  return { metres: digit * power * unit, text: `${digit * power} ${us ? "ft" : "m"}` };
}
