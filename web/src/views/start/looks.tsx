import type { ReactNode } from "react";

/** What machines look like, from the side, in a box of 96 × 64: drawn for this, by the keys of their forms. */
export const looks: Record<string, ReactNode> = {
  hand_pump: (
    <svg viewBox="0 0 96 64" aria-hidden>
      <path d="M30 22h20q4 0 4 5v29q0 3-3 3H29q-3 0-3-3V27q0-5 4-5zM40 22V10M33 10h14M26 44h28M54 30h10q6 0 8 6l8 18M80 54l5 3" />
    </svg>
  ),
  knapsack: (
    <svg viewBox="0 0 96 64" aria-hidden>
      <path d="M26 12h24q5 0 5 6v34q0 5-5 5H30q-4 0-4-4zM34 12V7h9v5M26 20q-9 6-9 16t9 14M26 38h29M55 46l16-2M71 44V22M55 54h7l24-26M86 28l5-5" />
    </svg>
  ),
  knapsack_battery: (
    <svg viewBox="0 0 96 64" aria-hidden>
      <path d="M26 12h24q5 0 5 6v34q0 5-5 5H30q-4 0-4-4zM34 12V7h9v5M26 20q-9 6-9 16t9 14M26 46h29M41 18l-6 10h9l-6 11M55 54h7l24-26M86 28l5-5" />
    </svg>
  ),
  walking_boom: (
    <svg viewBox="0 0 96 64" aria-hidden>
      <path d="M28 18h30q5 0 5 5v17H24V23q0-5 4-5zM24 40l-4 8M63 34l22-16M16 52a8 8 0 1 0 16 0a8 8 0 1 0-16 0M46 40v8M30 48h40M36 48v5M46 48v5M56 48v5M66 48v5" />
    </svg>
  ),
  ride_on: (
    <svg viewBox="0 0 96 64" aria-hidden>
      <path d="M12 46V34h16l6-12h14v12h28q6 0 6 6v6zM50 34V18h24q6 0 6 6v10M24 52a7 7 0 1 0 0-.1M62 52a7 7 0 1 0 0-.1M82 46h8M90 40v14M42 22l-3-8" />
    </svg>
  ),
  hose_end: (
    <svg viewBox="0 0 96 64" aria-hidden>
      <path d="M34 28h22v26q0 4-4 4H38q-4 0-4-4zM38 28v-6h14v6M32 14h28v8H32zM60 16l10-4M32 18H20q-8 0-8 8v32M34 42h22M74 8l8-3M76 13h9M74 18l8 3" />
    </svg>
  ),
  spot_gun: (
    <svg viewBox="0 0 96 64" aria-hidden>
      <path d="M18 22h34l10 4v8H18zM22 34v18h12V34M44 34q0 8-8 8M62 30h18M84 24l6-4M86 30h7M84 36l6 4M28 52v8" />
    </svg>
  ),
  broadcast: (
    <svg viewBox="0 0 96 64" aria-hidden>
      <path d="M24 16h38l-12 20H36zM43 36v8M24 50a8 8 0 1 0 16 0a8 8 0 1 0-16 0M36 44h22M54 40L82 14M18 60h2M10 56h2M62 58h2M72 54h2M58 62h2M78 60h2M4 62h2" />
    </svg>
  ),
  drop: (
    <svg viewBox="0 0 96 64" aria-hidden>
      <path d="M22 18h44l-8 24H30zM20 48a7 7 0 1 0 14 0a7 7 0 1 0-14 0M54 48a7 7 0 1 0 14 0a7 7 0 1 0-14 0M62 28L86 10M38 46v3M44 46v3M50 46v3M38 55v3M44 55v3M50 55v3" />
    </svg>
  ),
  hand_held: (
    <svg viewBox="0 0 96 64" aria-hidden>
      <path d="M30 14h30l-4 24H36zM36 14q0-8 9-8t9 8M40 38h12v6H40zM52 41h12M64 36v10M28 54h2M20 50h2M38 56h2M52 56h2M64 56h2M74 52h2M34 62h2M58 62h2" />
    </svg>
  ),
};
