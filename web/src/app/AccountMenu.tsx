import { Button, Menu, MenuItem, MenuTrigger, Popover, Separator } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { places } from "./places";
import { useAccount, useSession, useSignOut } from "./session";
import { setSettings, useSettings } from "./settings";
import { t, themes, themeText } from "./theme";

const Face = styled(Button)`
  background: none;
  border: 0;
  min-height: 36px;
  padding: 4px 0;
  cursor: pointer;
  text-decoration: underline;
  text-underline-offset: 0.18em;
  text-decoration-thickness: 1px;
  white-space: nowrap;
  > :last-child {
    display: none;
  }
  ${t.phone} {
    > :first-child {
      display: none;
    }
    > :last-child {
      display: inline;
    }
    min-height: 44px;
    padding: 4px 8px;
  }
`;
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
export function AccountMenu({ onHelp }: { onHelp: () => void }) {
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
    <MenuTrigger>
      <Face aria-label={`Menu for ${data?.user}`}>
        <span>{data?.user.split(" ")[0]}</span>
        <span>Menu</span>
      </Face>
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
