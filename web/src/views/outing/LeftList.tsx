import styled from "styled-components";
import type { Proposed } from "../../api/outings";
import { t } from "../../app/theme";
import { Hairlines } from "../../parts/Section";

const List = styled(Hairlines)`
  small {
    display: block;
    font-size: ${t.s13};
    color: ${t.soft};
  }
`;

/** What is due and does not go with an outing: why, when next, and what that costs. */
export function LeftList({ left }: { left: Proposed["left"] }) {
  return (
    <List>
      {left.map((x) => (
        <li key={x.key}>
          {x.title}
          <small>{[x.why, x.next, x.cost].filter(Boolean).join(" ")}</small>
        </li>
      ))}
    </List>
  );
}
