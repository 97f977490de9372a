import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useWatches } from "../../api/sky";
import { useAccount } from "../../app/session";
import { Empty } from "../../parts/Empty";
import { Page } from "../../parts/Page";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { useAreaPick } from "./AreaPick";
import { skyParts } from "./skyParts";
import { Rhythms } from "./Rhythms";
import { Scouts } from "./Scouts";
import { Watches } from "./Watches";

type Watch = Schemas["WatchOut"];

const Pick = styled.div`
  max-width: 320px;
  margin-bottom: 18px;
`;
/** How an area is watched, what scouts found on it, and what comes back on it every week. */
export function WatchPage() {
  const account = useAccount();
  const { area, field, empty } = useAreaPick();
  const watches = useWatches(area?.id ?? null);
  return (
    <Page
      sentence={
        watches.data
          ? `${watches.data.area} is watched for ${count(watches.data.watches)}; its grass is ${watches.data.grass.toLowerCase()}.`
          : "How is each area watched?"
      }
    >
      <SubRule label="Parts of the sky" parts={skyParts(account.slug)} />
      {empty ? <Empty>An area comes first; then it can be watched.</Empty> : <Pick>{field}</Pick>}
      {area && (
        <Waiting of={watches}>
          {(data) => (
            <>
              <Scouts area={area.id} watches={data.watches} />
              <Watches key={data.area_id} all={data} />
              <Rhythms all={data} />
            </>
          )}
        </Waiting>
      )}
    </Page>
  );
}

function count(watches: Watch[]) {
  const on = watches.filter((w) => w.on).length;
  return on === 1 ? "one disease" : `${on || "no"} diseases`;
}
