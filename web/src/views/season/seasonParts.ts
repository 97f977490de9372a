/** The parts of the season, as its sub-rule shows them. */
export const seasonParts = (account: string) => [
  { to: `/a/${account}/season`, text: "What is due" },
  { to: `/a/${account}/season/programme`, text: "Programme" },
  { to: `/a/${account}/season/plan`, text: "Make a plan" },
];
