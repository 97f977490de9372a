import type { Schemas } from "../api/client";
import { Left } from "./Left";
import { Hairlines } from "./Section";

/** What runs out: by when on the wall's clock, and how long that is from now. */
export function Clocks({ of }: { of: Schemas["OutingClockOut"][] }) {
  return (
    <Hairlines>
      {of.map((c) => (
        <li key={c.text}>
          {c.text}: <strong>by {c.until_text}</strong> <Left seconds={c.left} />
        </li>
      ))}
    </Hairlines>
  );
}
