import { NavLink, useParams } from "react-router";
import styled from "styled-components";
import { places } from "./places";
import { placeKey } from "./shortcuts";
import { t } from "./theme";

const Nav = styled.nav`
  position: relative;
  flex: 1;
  align-self: stretch;
  display: flex;
  background: repeating-linear-gradient(90deg, ${t.hair} 0 1px, transparent 1px 12px) left bottom / 100% 6px
    no-repeat;
  ${t.phone} {
    display: none;
  }
`;
const Strip = styled.nav`
  display: none;
  ${t.phone} {
    position: fixed;
    z-index: 5;
    inset: auto 0 0;
    display: grid;
    grid-template-columns: repeat(5, 1fr);
    background: ${t.paper};
    border-top: 1px solid ${t.rule};
    padding-bottom: env(safe-area-inset-bottom);
  }
  @media print {
    display: none;
  }
`;
const Place = styled(NavLink)`
  position: relative;
  flex: 1;
  display: flex;
  align-items: center;
  padding: 0 8px 8px 12px;
  color: ${t.soft};
  text-decoration: none;
  &::before {
    content: "";
    position: absolute;
    left: 0;
    bottom: 0;
    width: 1px;
    height: 22px;
    background: ${t.rule};
  }
  &.active {
    color: ${t.ink};
    font-weight: 600;
  }
  &.active::after {
    content: "";
    position: absolute;
    left: -7px;
    bottom: 20px;
    border: 7px solid transparent;
    border-top: 9px solid ${t.accent};
    border-bottom: 0;
  }
  &:hover {
    color: ${t.ink};
  }
  kbd {
    font: 400 ${t.s13} ${t.text};
    color: ${t.soft};
    margin-left: 6px;
    opacity: 0.7;
  }
  ${t.phone} {
    justify-content: center;
    padding: 14px 0 18px;
    min-height: 56px;
    font-size: ${t.s13};
    &::before {
      top: 0;
      bottom: auto;
      left: 50%;
      height: 9px;
    }
    &.active::after {
      left: calc(50% - 7px);
      top: 0;
      bottom: auto;
    }
    kbd {
      display: none;
    }
  }
`;

/** The way around: a graduated rule in the order of work. On a phone, the five places used outdoors. */
export function Rule() {
  const { account } = useParams();
  return (
    <>
      <Nav aria-label="Places">
        {places.map((p, i) => (
          <Place key={p.to} to={`/a/${account}/${p.to}`}>
            {p.name}
            <kbd aria-hidden>{placeKey(i)}</kbd>
          </Place>
        ))}
      </Nav>
      <Strip aria-label="Places outdoors">
        {places
          .filter((p) => p.outdoors)
          .map((p) => (
            <Place key={p.to} to={`/a/${account}/${p.to}`}>
              {p.name}
            </Place>
          ))}
      </Strip>
    </>
  );
}
