/** The parts of the club's page, as its sub-rule shows them. */
export const clubParts = (club: string) => [
  { to: `/c/${club}/club`, text: "Members" },
  { to: `/c/${club}/club/house`, text: "House rules" },
];
