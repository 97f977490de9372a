import { createGlobalStyle } from "styled-components";

/** Tokens. Three themes: paper for the bench, ink for five in the morning, sunlight for outdoors at noon. */
export const themes = ["paper", "ink", "sunlight"] as const;
export type ThemeName = (typeof themes)[number];
export const themeText: Record<ThemeName, string> = {
  paper: "Paper",
  ink: "Ink, for the dark",
  sunlight: "Sunlight, high contrast",
};

export const t = {
  paper: "var(--paper)",
  sheet: "var(--sheet)",
  ink: "var(--ink)",
  soft: "var(--soft)",
  hair: "var(--hair)",
  rule: "var(--rule)",
  accent: "var(--accent)",
  onAccent: "var(--on-accent)",
  wash: "var(--wash)",
  stop: "var(--stop)",
  stopWash: "var(--stop-wash)",
  caution: "var(--caution)",
  cautionWash: "var(--caution-wash)",
  liquid: "var(--liquid)",
  mix: "var(--mix)",
  grain: "var(--grain)",
  turf: "var(--turf)",
  text: "'Source Sans 3 Variable', system-ui, sans-serif",
  serif: "'Literata', Georgia, serif",
  s13: "0.8125rem",
  s15: "0.9375rem",
  s18: "1.125rem",
  s24: "1.5rem",
  s34: "2.125rem",
  phone: "@media (max-width: 720px)",
} as const;

export const GlobalStyle = createGlobalStyle`
  :root {
    --paper: #faf7f0; --sheet: #fffdf8; --ink: #1a2333; --soft: #525b6b; --hair: #d6cfbf; --rule: #8b8474;
    --accent: #0c5470; --on-accent: #ffffff; --wash: #e3ecee; --stop: #a01f1c; --stop-wash: #f7e4e0;
    --caution: #7d5200; --caution-wash: #f6ead0; --liquid: #a9cbd6; --mix: #d8e6e8; --grain: #d5bf95;
    --turf: #cfddb8;
    color-scheme: light;
  }
  :root[data-theme="ink"] {
    --paper: #11151c; --sheet: #171c25; --ink: #ece7db; --soft: #a8b0bc; --hair: #323a47; --rule: #78818f;
    --accent: #84c7e0; --on-accent: #0b1016; --wash: #1c2b35; --stop: #ff9289; --stop-wash: #3a1d1d;
    --caution: #f0c068; --caution-wash: #33290f; --liquid: #3d7f99; --mix: #223b47; --grain: #8d7748;
    --turf: #3c5236;
    color-scheme: dark;
  }
  :root[data-theme="sunlight"] {
    --paper: #ffffff; --sheet: #ffffff; --ink: #000000; --soft: #1f1f1f; --hair: #6b6b6b; --rule: #000000;
    --accent: #003a57; --on-accent: #ffffff; --wash: #dcecf3; --stop: #860000; --stop-wash: #ffe1dc;
    --caution: #553600; --caution-wash: #ffeec2; --liquid: #7fb6ca; --mix: #cfe4ea; --grain: #c9a75e;
    --turf: #b9d18f;
    color-scheme: light;
  }
  *, *::before, *::after { box-sizing: border-box; }
  html { font-size: 16px; -webkit-text-size-adjust: 100%; }
  body {
    margin: 0; background: ${t.paper}; color: ${t.ink}; font: 400 ${t.s15}/1.45 ${t.text};
    font-variant-numeric: tabular-nums lining-nums;
  }
  h1, h2, h3 { font-family: ${t.serif}; font-weight: 500; margin: 0; line-height: 1.25; text-wrap: pretty; }
  h1 { font-size: ${t.s24}; letter-spacing: -0.005em; }
  h2 { font-size: ${t.s18}; }
  h3 { font-size: ${t.s15}; }
  p { margin: 0; }
  small { font-size: ${t.s13}; }
  a { color: ${t.accent}; text-underline-offset: 0.18em; text-decoration-thickness: 1px; }
  ol, ul, dl, dd { margin: 0; padding: 0; list-style: none; }
  button, input, textarea, select { font: inherit; color: inherit; }
  :focus-visible, [data-focus-visible] { outline: 2px solid ${t.accent}; outline-offset: 2px; }
  :focus:not(:focus-visible) { outline: none; }
  ${t.phone} {
    main summary { padding-block: 12px; }
    main :is(td, th, dd, li, span, div, h2, h3) > a:not(p a) { display: inline-flex; align-items: center; min-height: 44px; }
  }
  @media (prefers-reduced-motion: reduce) {
    *, *::before, *::after { animation: none !important; transition: none !important; }
  }
  @media print {
    :root { --paper: #fff; --sheet: #fff; --ink: #000; --soft: #222; --hair: #999; }
    body { font-size: 10.5pt; }
    @page { margin: 14mm; }
  }
`;
