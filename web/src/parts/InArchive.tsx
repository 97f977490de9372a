import { Link } from "react-router";
import { useAccount } from "../app/session";
import { Hint } from "./Field";

/** What a file holds, what it leaves out, and where all of it is to be had. */
export function InArchive({ holds, leaves }: { holds: string; leaves: string }) {
  const account = useAccount();
  return (
    <Hint style={{ maxWidth: "60ch" }}>
      {holds} Not in it: {leaves}. <Link to={`/a/${account.slug}/account/whole`}>The archive</Link> holds all
      of it.
    </Hint>
  );
}
