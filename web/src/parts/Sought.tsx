import type { ReactNode } from "react";
import { Autocomplete, Input, SearchField, useFilter } from "react-aria-components";
import styled from "styled-components";
import { t } from "../app/theme";
import { box } from "./TextField";

/** Up to so many options one types the first letters; a longer list is searched. */
const FEW = 16;

export const isLong = (count: number) => count > FEW;

const Search = styled(SearchField)`
  position: sticky;
  top: 0;
  z-index: 1;
  padding: 8px;
  background: ${t.sheet};
  border-bottom: 1px solid ${t.hair};
`;
const Words = styled(Input)`
  ${box}
`;

const None = styled.p`
  padding: 10px 12px;
  color: ${t.soft};
`;

/** What stands in a list in which nothing is found. */
export const nothingFound = () => <None>Nothing by that name.</None>;

/** A list under a field that narrows it as one types, where it is long: any part of a name or of its note is found. */
export function Sought({ label, count, children }: { label: string; count: number; children: ReactNode }) {
  const { contains } = useFilter({ sensitivity: "base" });
  if (!isLong(count)) return children;
  return (
    <Autocomplete filter={(text, words) => words.split(/\s+/).every((w) => contains(text, w))}>
      <Search aria-label={`Search: ${label}`} autoFocus>
        <Words placeholder="Search" />
      </Search>
      {children}
    </Autocomplete>
  );
}
