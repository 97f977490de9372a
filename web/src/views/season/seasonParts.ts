import type { Account } from "../../app/session";

/** The parts of the season, as its sub-rule shows them. */
export const seasonParts = ({ slug: account, sites }: Account) => [
  { to: `/a/${account}/season`, text: "What is due" },
  { to: `/a/${account}/season/programme`, text: "Programme" },
  { to: `/a/${account}/season/plan`, text: "Make a plan" },
  ...(sites.length > 1 ? [{ to: `/a/${account}/season/sites`, text: "All sites" }] : []),
];
