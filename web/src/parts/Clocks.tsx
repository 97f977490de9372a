import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";
import { Left } from "./Left";

const List = styled.ul`
  list-style: none;
  padding: 0;
  li {
    padding: 8px 0;
    border-bottom: 1px solid ${t.hair};
  }
`;

/** What runs out: by when on the wall's clock, and how long that is from now. */
export function Clocks({ of }: { of: Schemas["OutingClockOut"][] }) {
  return (
    <List>
      {of.map((c) => (
        <li key={c.text}>
          {c.text}: <strong>by {c.until_text}</strong> <Left seconds={c.left} />
        </li>
      ))}
    </List>
  );
}
