import { lazy, Suspense, useState } from "react";
import { Button } from "react-aria-components";
import styled from "styled-components";
import { useSession } from "./session";
import { t } from "./theme";

const AccountMenu = lazy(() => import("./AccountMenu"));

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
/** The account's menu under one's name; what it is made of comes with its first press. */
export function MenuButton({ onHelp }: { onHelp: () => void }) {
  const { data } = useSession();
  const [asked, setAsked] = useState(false);
  const face = (
    <Face aria-label={`Menu for ${data?.user}`} aria-haspopup="menu" onPress={() => setAsked(true)}>
      <span>{data?.user.split(" ")[0]}</span>
      <span>Menu</span>
    </Face>
  );
  return asked ? (
    <Suspense fallback={face}>
      <AccountMenu onHelp={onHelp} face={face} />
    </Suspense>
  ) : (
    face
  );
}
