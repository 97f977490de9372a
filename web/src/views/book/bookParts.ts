/** The parts of the book, as its sub-rule shows them. */
export const bookParts = (account: string, manager: boolean) => [
  { to: `/a/${account}/book`, text: "Applications" },
  { to: `/a/${account}/book/story`, text: "Everything that happened" },
  { to: `/a/${account}/book/outcomes`, text: "Did it work?" },
  { to: `/a/${account}/book/trials`, text: "Trials" },
  { to: `/a/${account}/book/records`, text: "Records" },
  ...(manager ? [{ to: `/a/${account}/book/past`, text: "Type past ones" }] : []),
];
