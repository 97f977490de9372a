/** What forms are laid out with. */
export { Hint } from "./Field";
export { Bar, Fields } from "./Section";
