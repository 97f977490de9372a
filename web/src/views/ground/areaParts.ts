/** The parts of an area's page, as its sub-rule shows them. */
export const areaParts = (club: string, id: number, may: boolean) => [
  { to: `/c/${club}/ground/${id}`, text: "The area" },
  ...(may ? [{ to: `/c/${club}/ground/${id}/change`, text: "Change it" }] : []),
  { to: `/c/${club}/ground/${id}/measure`, text: "Measure it again" },
  { to: `/c/${club}/ground/${id}/soil`, text: "Soil pH" },
  { to: `/c/${club}/ground/${id}/water`, text: "Water" },
  { to: `/c/${club}/sky?area=${id}`, text: "Sky" },
];
