import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../../api/client";
import { useStory } from "../../../api/story";
import { useStation } from "../../../api/sky";
import { useAccount, useMay } from "../../../app/session";
import { t } from "../../../app/theme";
import { Button } from "../../../parts/Button";
import { Facts } from "../../../parts/Facts";
import { Hint } from "../../../parts/Field";
import { Fault } from "../../../parts/Notice";
import { Bar, Section } from "../../../parts/Section";
import { Waiting } from "../../../parts/Waiting";
import { HandForm } from "../../sky/ByHand";
import { Told } from "./Told";
import { TimeLine } from "./TimeLine";
import { useNoted, WorkForm } from "./WorkForm";

const ONE_TAP = ["mow", "water", "roll"];

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0 32px;
  align-items: start;
  margin: 28px 0 20px;
  &:empty {
    display: none;
  }
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
  > section {
    margin-top: 0 !important;
    ${t.phone} {
      margin-top: 20px !important;
    }
  }
`;

/** The story of an area: the last of each, what comes next, three months on one line, and all of it below. */
export function Story({ area_id, site_id }: { area_id: number; site_id: number }) {
  const [whole, setWhole] = useState(false);
  const story = useStory(area_id, whole);
  const may = useMay("applicator");
  return (
    <Waiting of={story}>
      {(found) => (
        <>
          {found.ahead.length > 0 && (
            <Section title="What comes next">
              <Facts of={found.ahead.map((f) => [f.name, f.text])} />
            </Section>
          )}
          <Two>
            <Lasts title="Last put down" of={found.lasts.filter((f) => f.lane === "down")} />
            <Lasts title="Last done" of={found.lasts.filter((f) => f.lane === "work")} />
          </Two>
          <Section title="Its story">
            {(found.events.length > 0 || found.line.rain.length > 0) && (
              <TimeLine events={found.events} today={found.today} line={found.line} />
            )}
            {may && <Note area_id={area_id} site_id={site_id} usual={found.usual} />}
            {found.events.length === 0 ? (
              <Hint style={{ marginTop: 12 }}>
                {found.more
                  ? "Nothing has happened here for more than a year."
                  : "Nothing is known of it yet. What goes into the book for it, and what is noted here, makes its story."}
              </Hint>
            ) : (
              <Told events={found.events} />
            )}
            {found.more && !whole && (
              <Button look="quiet" onPress={() => setWhole(true)}>
                Show the years before
              </Button>
            )}
          </Section>
        </>
      )}
    </Waiting>
  );
}

/** What a gauge or a thermometer on the area reads; a site's station keeps it. */
function Gauge({ area_id, site_id, onDone }: { area_id: number; site_id: number; onDone: () => void }) {
  const stations = useStation(site_id);
  const { slug } = useAccount();
  return (
    <Waiting of={stations}>
      {(all) =>
        all.station ? (
          <HandForm all={all} area={String(area_id)} onDone={onDone} />
        ) : (
          <Hint>
            Readings are kept with the site’s weather station.{" "}
            <Link to={`/a/${slug}/sky/station`}>Set it up first</Link>, be it a rain gauge alone.
          </Hint>
        )
      }
    </Waiting>
  );
}

function Lasts({ title, of }: { title: string; of: Schemas["LastOut"][] }) {
  if (!of.length) return null;
  return (
    <Section title={title}>
      <Facts of={of.map((f) => [f.name, f.text])} />
    </Section>
  );
}

/** One press for the usual, and a form for all else. */
function Note({
  area_id,
  site_id,
  usual,
}: {
  area_id: number;
  site_id: number;
  usual: Schemas["UsualOut"][];
}) {
  const [open, setOpen] = useState<"" | "work" | "gauge">("");
  const { noted, error, isPending } = useNoted();
  if (open) {
    return (
      <div style={{ margin: "16px 0 24px" }}>
        {open === "work" ? (
          <WorkForm area_id={area_id} usual={usual} onDone={() => setOpen("")} />
        ) : (
          <Gauge area_id={area_id} site_id={site_id} onDone={() => setOpen("")} />
        )}
      </div>
    );
  }
  return (
    <>
      <Bar style={{ margin: "12px 0" }}>
        {usual
          .filter((u) => ONE_TAP.includes(u.kind))
          .map((u) => (
            <Button
              key={u.kind}
              isDisabled={isPending}
              onPress={() =>
                noted({
                  kind: u.kind,
                  area_ids: [area_id],
                  clock: "",
                  done: true,
                  note: "",
                  told: u.told.map(({ key, value, unit, word }) =>
                    unit ? { key, word: "", quantity: { value, unit } } : { key, word },
                  ),
                })
              }
            >
              {`${u.text.replace(/\.$/, "")}, now`}
            </Button>
          ))}
        <Button onPress={() => setOpen("work")}>Note other work</Button>
        <Button onPress={() => setOpen("gauge")}>Read a gauge</Button>
      </Bar>
      <Fault error={error} />
    </>
  );
}
