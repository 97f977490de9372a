import type { ReactNode } from "react";
import styled from "styled-components";
import { t } from "../app/theme";

const List = styled.dl`
  display: grid;
  grid-template-columns: minmax(84px, max-content) 1fr;
  gap: 4px 16px;
  dt {
    color: ${t.soft};
    font-size: ${t.s13};
    padding-top: 2px;
  }
`;

/** Names and what they are, in two columns; those with nothing to say are left out. */
export function Facts({ of }: { of: [string, ReactNode][] }) {
  return (
    <List>
      {of
        .filter(([, value]) => value !== "" && value !== null && value !== undefined)
        .map(([name, value]) => (
          <FactRow key={name} name={name} value={value} />
        ))}
    </List>
  );
}

function FactRow({ name, value }: { name: string; value: ReactNode }) {
  return (
    <>
      <dt>{name}</dt>
      <dd>{value}</dd>
    </>
  );
}
