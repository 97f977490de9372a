import { lazy, Suspense, useEffect, useState, useSyncExternalStore } from "react";
import { Link, Outlet, useNavigate } from "react-router";
import styled from "styled-components";
import { quarrels } from "../api/revised";
import { useOnline } from "./connection";
import { MenuButton } from "./MenuButton";
import { Rule } from "./Rule";
import { useAccount, useSession, useSignOut } from "./session";
import { useShortcuts } from "./shortcuts";
import { t } from "./theme";
import { anythingSaid, hearSaid } from "./toast";
import { useLineInAddress } from "./useLineInAddress";

const fetchLine = () => import("./ReckonLine");
const fetchToasts = () => import("./Toasts");
const ReckonLine = lazy(fetchLine);
const QuarrelSheet = lazy(() => import("./QuarrelSheet"));
const Toasts = lazy(fetchToasts);
const HelpSheet = lazy(() => import("../views/help/HelpSheet"));

const Top = styled.header`
  display: flex;
  align-items: center;
  gap: 20px;
  height: 56px;
  padding: 0 32px;
  border-bottom: 1px solid ${t.rule};
  ${t.phone} {
    padding: 0 16px;
    gap: 8px;
    justify-content: space-between;
  }
  @media print {
    display: none;
  }
`;
const Name = styled(Link)`
  font: 500 ${t.s18} ${t.serif};
  color: ${t.ink};
  text-decoration: none;
  white-space: nowrap;
`;
const Opener = styled.button`
  background: none;
  border: 1px solid ${t.rule};
  border-radius: 3px;
  min-height: 36px;
  padding: 4px 12px;
  cursor: pointer;
  white-space: nowrap;
  kbd {
    font: 600 ${t.s15} ${t.text};
    color: ${t.accent};
    margin-right: 6px;
  }
  ${t.phone} {
    min-height: 44px;
  }
`;
const Lost = styled.div`
  background: ${t.cautionWash};
  border-bottom: 1px solid ${t.caution};
  padding: 8px 32px;
  strong {
    color: ${t.caution};
  }
  @media print {
    display: none;
  }
`;
const Sample = styled(Lost)`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 20px;
  align-items: center;
  justify-content: space-between;
  background: ${t.wash};
  border-color: ${t.accent};
  strong {
    color: ${t.accent};
  }
  ${t.phone} {
    padding-inline: 16px;
  }
`;
const Skip = styled.a`
  position: absolute;
  left: -9999px;
  &:focus {
    left: 8px;
    top: 8px;
    background: ${t.sheet};
    padding: 8px;
    z-index: 9;
  }
`;

/** When what a first press may want is fetched, once the view stands [ms]. */
const SOON = 4_000;

/** What is around every view: the rule, the reckon line, the account's menu, and the word when the signal is lost. */
export function Shell() {
  const account = useAccount();
  const { data } = useSession();
  const out = useSignOut();
  const online = useOnline();
  const quarrel = useSyncExternalStore(quarrels.subscribe, quarrels.now);
  const told = useSyncExternalStore(hearSaid, anythingSaid);
  const navigate = useNavigate();
  const [asked, ask] = useLineInAddress();
  const [sheet, setSheet] = useState(false);
  useEffect(() => {
    const later = setTimeout(() => void Promise.all([fetchLine(), fetchToasts()]), SOON);
    return () => clearTimeout(later);
  }, []);
  useShortcuts({
    busy: asked !== null || sheet,
    go: (to) => void navigate(`/a/${account.slug}/${to}`),
    reckon: () => ask(asked === null ? "" : null),
    help: () => setSheet((open) => !open),
  });
  return (
    <>
      <Skip href="#main">Skip to the work</Skip>
      <Top>
        <Name to={`/a/${account.slug}/today`}>Green Measure</Name>
        <Rule />
        <Opener onClick={() => ask("")} aria-keyshortcuts="=">
          <kbd>=</kbd>Reckon line
        </Opener>
        <MenuButton onHelp={() => setSheet(true)} />
      </Top>
      {data?.visits && (
        <Sample role="note">
          <span>
            <strong>Sample account.</strong> Made-up grounds to look round in: everything can be opened and
            reckoned, nothing is changed.
          </span>
          <Opener onClick={() => out.mutate(undefined, { onSuccess: () => void navigate("/?start") })}>
            Start your own
          </Opener>
        </Sample>
      )}
      {!online && (
        <Lost role="alert">
          <strong>No connection.</strong> What you type is kept on this device; the last answers stay. Trying
          again …
        </Lost>
      )}
      <Outlet />
      <Suspense>
        {asked !== null && <ReckonLine asked={asked} onAsk={ask} onClose={() => ask(null)} />}
      </Suspense>
      <Suspense>{sheet && <HelpSheet onClose={() => setSheet(false)} />}</Suspense>
      <Suspense>
        {quarrel && <QuarrelSheet key={JSON.stringify(quarrel.changes)} quarrel={quarrel} />}
      </Suspense>
      <Suspense>{told && <Toasts />}</Suspense>
    </>
  );
}
