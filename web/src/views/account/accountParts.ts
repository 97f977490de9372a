/** The parts of the account's page, as its sub-rule shows them. */
export const accountParts = (account: string) => [
  { to: `/a/${account}/account`, text: "Members" },
  { to: `/a/${account}/account/house`, text: "House rules" },
  { to: `/a/${account}/account/sites`, text: "Sites" },
];
