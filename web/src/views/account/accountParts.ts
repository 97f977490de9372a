import type { Account } from "../../app/session";

/** The parts of the account's page, as its sub-rule shows them. */
export const accountParts = ({ slug: account, sites }: Account) => [
  { to: `/a/${account}/account`, text: "Members" },
  { to: `/a/${account}/account/house`, text: "House rules" },
  { to: `/a/${account}/account/sites`, text: sites.length > 1 ? "Sites" : "Where it is" },
  ...(sites.length > 1 ? [{ to: `/a/${account}/account/routes`, text: "Routes" }] : []),
  { to: `/a/${account}/account/you`, text: "You" },
  { to: `/a/${account}/account/away`, text: "Put away" },
  { to: `/a/${account}/account/whole`, text: "Archive" },
];
