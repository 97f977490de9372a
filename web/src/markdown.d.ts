declare module "*.md" {
  const found: never;
  export default found;
}
