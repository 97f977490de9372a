/** The parts of the book, as its sub-rule shows them. */
export const bookParts = (account: string) => [
  { to: `/a/${account}/book`, text: "Applications" },
  { to: `/a/${account}/book/story`, text: "Everything that happened" },
];
