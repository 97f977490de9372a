import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../api/client";
import { useAccount } from "../app/session";
import { t } from "../app/theme";
import { Notice } from "./Notice";

const Quiet = styled.p`
  font-size: ${t.s13};
  color: ${t.soft};
  margin-bottom: 14px;
  &:not(:first-child) {
    margin-top: 12px;
  }
`;

/** How fresh the weather is: a quiet line while it is, a caution where it is old or nothing has come. */
export function FreshLine({ fresh }: { fresh: Schemas["FreshOut"] }) {
  const account = useAccount();
  const where = <Link to={`/a/${account.slug}/sky/station`}>{fresh.station || "Set up a station"}</Link>;
  if (fresh.state === "fresh")
    return (
      <Quiet data-fresh="fresh">
        {where}: {fresh.sentence}
      </Quiet>
    );
  return (
    <div data-fresh={fresh.state}>
      <Notice tone="caution" word={fresh.state === "stale" ? "Old weather" : "No weather"}>
        {fresh.sentence.replace(/^Old weather: m/, "M")} {where}
      </Notice>
    </div>
  );
}
