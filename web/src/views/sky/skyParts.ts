/** The parts of the sky, on the short ticks of its rule. */
export const skyParts = (account: string) => {
  const to = (part: string) => `/a/${account}/sky${part}`;
  return [
    { to: to(""), text: "Day by day" },
    { to: to("/hours"), text: "Hours fit to work" },
    { to: to("/clocks"), text: "Regulators" },
    { to: to("/schools"), text: "Two schools" },
    { to: to("/watch"), text: "Scouting" },
    { to: to("/station"), text: "Station" },
    { to: to("/long"), text: "Long series" },
  ];
};
