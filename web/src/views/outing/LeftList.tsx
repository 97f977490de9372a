import styled from "styled-components";
import type { Proposed } from "../../api/outings";
import { t } from "../../app/theme";

const List = styled.ul`
  li {
    padding: 8px 0;
    border-bottom: 1px solid ${t.hair};
  }
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
