import { NavLink } from "react-router";
import styled from "styled-components";
import { t } from "../app/theme";

const Nav = styled.nav`
  display: flex;
  flex-wrap: wrap;
  margin-bottom: 20px;
  border-bottom: 1px solid ${t.hair};
  @media print {
    display: none;
  }
`;
const Part = styled(NavLink)`
  position: relative;
  padding: 4px 22px 8px 10px;
  color: ${t.soft};
  text-decoration: none;
  &::before {
    content: "";
    position: absolute;
    left: 0;
    bottom: 0;
    width: 1px;
    height: 10px;
    background: ${t.rule};
  }
  &.active {
    color: ${t.ink};
    font-weight: 600;
  }
  &.active::after {
    content: "";
    position: absolute;
    left: 0;
    right: 12px;
    bottom: -1px;
    height: 2px;
    background: ${t.accent};
  }
  &:hover {
    color: ${t.ink};
  }
  ${t.phone} {
    padding: 12px 14px 12px 8px;
  }
`;

/** The parts of a place, on the short ticks of its rule. */
export function SubRule({ label, parts }: { label: string; parts: { to: string; text: string }[] }) {
  return (
    <Nav aria-label={label}>
      {parts.map((p) => (
        <Part key={p.to} to={p.to} end>
          {p.text}
        </Part>
      ))}
    </Nav>
  );
}
