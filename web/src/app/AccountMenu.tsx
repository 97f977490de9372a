import { Menu, MenuItem, MenuTrigger, Popover, Separator } from "react-aria-components";
import type { ReactNode } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { places } from "./places";
import { useAccount, useSession, useSignOut } from "./session";
import { setSettings, useSettings } from "./settings";
import { t, themes, themeText } from "./theme";

const Pop = styled(Popover)`
  background: ${t.sheet};
  border: 1px solid ${t.rule};
  min-width: 240px;
`;
const List = styled(Menu)`
  padding: 6px 0;
  outline: none;
`;
const Item = styled(MenuItem)`
  padding: 9px 14px;
  cursor: pointer;
  outline: none;
  &[data-focused] {
    background: ${t.wash};
  }
  ${t.phone} {
    padding-block: 13px;
  }
`;
const Line = styled(Separator)`
  height: 1px;
  margin: 6px 0;
  background: ${t.hair};
`;

/** The account, its people, the theme, and the way out. On a phone also the places that are not in the strip. */
export default function AccountMenu({ onHelp, face }: { onHelp: () => void; face: ReactNode }) {
  const account = useAccount();
  const { data } = useSession();
  const { theme } = useSettings();
  const out = useSignOut();
  const navigate = useNavigate();
  const others = data?.accounts.filter((c) => c.slug !== account.slug) ?? [];
  const act = (key: string) => {
    if (key.startsWith("theme:")) setSettings({ theme: key.slice(6) as (typeof themes)[number] });
    else if (key === "keys") onHelp();
    else if (key === "out") out.mutate(undefined, { onSuccess: () => void navigate("/") });
    else void navigate(key);
  };
  return (
    <MenuTrigger defaultOpen>
      {face}
      <Pop placement="bottom end">
        <List onAction={(key) => act(String(key))}>
          <Item id={`/a/${account.slug}/account`}>{account.name}</Item>
          <Item id={`/a/${account.slug}/account/house`}>House rules</Item>
          <Item id={`/a/${account.slug}/account/sites`}>
            {account.sites.length > 1 ? "Sites" : "Where it is"}
          </Item>
          {places
            .filter((p) => !p.outdoors)
            .map((p) => (
              <Item key={p.to} id={`/a/${account.slug}/${p.to}`}>
                {p.name}
              </Item>
            ))}
          {others.map((c) => (
            <Item key={c.slug} id={`/a/${c.slug}/today`}>{`Go to ${c.name}`}</Item>
          ))}
          <Line />
          {themes.map((name) => (
            <Item key={name} id={`theme:${name}`}>{`${name === theme ? "● " : "○ "}${themeText[name]}`}</Item>
          ))}
          <Line />
          <Item id="keys">Help and keys</Item>
          <Item id="out">Sign out</Item>
        </List>
      </Pop>
    </MenuTrigger>
  );
}
