/**
 * A sequential ramp that keeps its order in grey and for every kind of colour sight: from pale straw over teal to deep
 * ink, ever darker. Lightness falls evenly, so that the eye reads a rate by how dark it is.
 */
const stops: [number, [number, number, number]][] = [
  [0, [250, 246, 226]],
  [0.5, [219, 214, 160]],
  [0.8, [164, 197, 157]],
  [1, [96, 168, 158]],
  [1.2, [40, 128, 148]],
  [1.6, [24, 78, 119]],
  [2.5, [18, 28, 62]],
];

/** The colour of a share of the intended rate. */
export function shade(share: number): [number, number, number] {
  const at = Math.max(0, Math.min(2.5, share));
  const i = Math.max(
    1,
    stops.findIndex(([s]) => at <= s),
  );
  const [low, from] = stops[i - 1]!;
  const [high, to] = stops[i]!;
  const part = (at - low) / (high - low);
  return [0, 1, 2].map((n) => Math.round(from[n]! + part * (to[n]! - from[n]!))) as [number, number, number];
}

export const css = (share: number) => `rgb(${shade(share).join(" ")})`;

/** The colours of all bytes a map is sent in, hundredths of the rate. */
export const table = Array.from({ length: 256 }, (_, i) => shade(i / 100));

/**
 * The colour of a risk by its share of the threshold: ever stronger ink against the paper of the theme, so that a high risk
 * stands out by day and in the dark.
 */
export const riskInk = (share: number) =>
  `color-mix(in oklab, var(--accent) ${Math.round(Math.min(1, share / 1.25) * 100)}%, var(--mix))`;
