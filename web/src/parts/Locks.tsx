import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";

type Lock = Schemas["LockOut"];

const List = styled.ul`
  list-style: none;
  padding: 0;
  li {
    display: grid;
    grid-template-columns: 7.5rem minmax(0, 1fr);
    gap: 0 12px;
    padding: 8px 0;
    border-bottom: 1px solid ${t.hair};
  }
  strong[data-binds] {
    color: ${t.stop};
  }
  strong {
    color: ${t.caution};
  }
  ${t.phone} {
    li {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;

const words: Record<Lock["what"], string> = {
  water: "No water",
  mow: "No mowing",
  walk: "Keep off",
  seed: "No seeding",
};

/** What must not happen on the ground, and until when; the word stands before, so that no colour says it alone. */
export function Locks({ of }: { of: Lock[] }) {
  return (
    <List>
      {of.map((x) => (
        <li key={`${x.where} ${x.what}`}>
          <strong data-binds={x.binds || undefined}>{words[x.what]}</strong>
          <span>{x.sentence}</span>
        </li>
      ))}
    </List>
  );
}
