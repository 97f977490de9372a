/** The parts of an area's page, as its sub-rule shows them. */
export const areaParts = (account: string, id: number, may: boolean) => [
  { to: `/a/${account}/ground/${id}`, text: "The area" },
  { to: `/a/${account}/ground/${id}/seen`, text: "Scouting" },
  ...(may ? [{ to: `/a/${account}/ground/${id}/change`, text: "Change it" }] : []),
  { to: `/a/${account}/ground/${id}/measure`, text: "Measure it again" },
  { to: `/a/${account}/ground/${id}/soil`, text: "Soil pH" },
  { to: `/a/${account}/ground/${id}/sodium`, text: "Sodium" },
  { to: `/a/${account}/ground/${id}/water`, text: "Water" },
  { to: `/a/${account}/sky?area=${id}`, text: "Sky" },
];
