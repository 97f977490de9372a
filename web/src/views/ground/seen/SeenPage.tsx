import { useState } from "react";
import { Link, useParams } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../../api/client";
import { useArea } from "../../../api/hooks";
import { useEyes, useRemoveSpot, type Photo } from "../../../api/scouting";
import { useAccount, useMay } from "../../../app/session";
import { t } from "../../../app/theme";
import { say } from "../../../app/toast";
import { AreaPlan } from "../../../parts/AreaPlan";
import { Button, ButtonLink } from "../../../parts/Button";
import { Empty } from "../../../parts/Empty";
import { Hint } from "../../../parts/Field";
import { Page } from "../../../parts/Page";
import { Section } from "../../../parts/Section";
import { SubRule } from "../../../parts/SubRule";
import { Waiting } from "../../../parts/Waiting";
import { areaParts } from "../areaParts";
import { Reports } from "./Reports";
import { ScoutForm } from "./ScoutForm";
import { Take } from "./Take";
import { Thumbs } from "./Thumbs";

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: baseline;
  justify-content: space-between;
  margin: 4px 0 8px;
  h3 {
    font: 600 ${t.s15} ${t.text};
  }
`;
const Spot = styled.div`
  &:not(:last-child) {
    margin-bottom: 22px;
  }
`;

/** What was seen on an area: pictures of its fixed spots over the season, and what scouts found. */
export function SeenPage() {
  const area_id = Number(useParams().id);
  const eyes = useEyes(area_id);
  return <Waiting of={eyes}>{(found) => <Seen key={area_id} found={found} />}</Waiting>;
}

function Seen({ found }: { found: Schemas["EyesOut"] }) {
  const account = useAccount();
  const may = useMay("applicator");
  const manager = useMay("manager");
  const [open, setOpen] = useState<"" | "take" | "note">("");
  const loose = found.photos.filter((p) => p.spot_id === null);
  const close = () => setOpen("");
  return (
    <Page
      sentence={found.sentence}
      act={
        may && (
          <>
            <Button look="main" isDisabled={open === "take"} onPress={() => setOpen("take")}>
              Photograph it
            </Button>
            <Button isDisabled={open === "note"} onPress={() => setOpen("note")}>
              Note what was seen
            </Button>
          </>
        )
      }
      margin={
        <>
          <Where area_id={found.area_id} spots={found.spots} reports={found.reports} />
          <Section title="To compare pictures">
            <Hint>
              Same spot, same hour, same light, and mown alike. Cut grass and cloud make a false comparison,
              and a picture shows neither feel nor smell: score it too.
            </Hint>
          </Section>
        </>
      }
    >
      <SubRule label="Parts of the area’s page" parts={areaParts(account.slug, found.area_id, manager)} />
      {open === "take" && (
        <Section title="Photographs">
          <Take area_id={found.area_id} spots={found.spots} onDone={close} />
        </Section>
      )}
      {open === "note" && (
        <Section title="What was seen">
          <ScoutForm area_id={found.area_id} spots={found.spots} onDone={close} />
        </Section>
      )}
      {found.spots.length === 0 && found.photos.length === 0 && found.reports.length === 0 && open === "" && (
        <Empty>
          Nothing is noted of {found.area} yet. Photograph a spot that is easily found again, and come back to
          it: a strip of it over the season tells more than memory does.
        </Empty>
      )}
      {found.spots.length > 0 && (
        <Section title="Fixed spots">
          {found.spots.map((s) => (
            <OneSpot
              key={s.id}
              spot={s}
              area_id={found.area_id}
              photos={found.photos.filter((p) => p.spot_id === s.id)}
            />
          ))}
        </Section>
      )}
      {loose.length > 0 && (
        <Section title={found.spots.length > 0 ? "Other photographs" : "Photographs"}>
          <Thumbs of={loose} label="Photographs of no fixed spot" />
        </Section>
      )}
      {found.reports.length > 0 && (
        <Section title="What scouts found">
          <Reports reports={found.reports} />
        </Section>
      )}
      {found.more && <Hint>More is in the area’s story.</Hint>}
    </Page>
  );
}

/** Where the spots lie, for those whose place is known. */
function Where({
  area_id,
  spots,
  reports,
}: {
  area_id: number;
  spots: Schemas["SpotOut"][];
  reports: Schemas["ScoutOut"][];
}) {
  const area = useArea(area_id);
  const us = useAccount().units === "us";
  const known = spots.filter((s): s is typeof s & { x: number; y: number } => s.x !== null && s.y !== null);
  const seen = reports.filter(
    (r): r is typeof r & { x: number; y: number } => !r.struck && r.x !== null && r.y !== null,
  );
  if (!(known.length || seen.length) || !area.data?.plan) return null;
  return (
    <Section title="Where it lies">
      <AreaPlan
        plan={{ ...area.data.plan, marks: [] }}
        us={us}
        label="Plan with the fixed spots and what was seen"
        spots={known}
        patches={seen}
      />
      <Hint>{known.map((s, i) => `${i + 1} ${s.name}`).join("; ")}</Hint>
    </Section>
  );
}

function OneSpot({ spot, area_id, photos }: { spot: Schemas["SpotOut"]; area_id: number; photos: Photo[] }) {
  const { slug } = useAccount();
  const may = useMay("applicator");
  const remove = useRemoveSpot(area_id);
  const [now, then] = photos;
  return (
    <Spot>
      <Head>
        <h3>{spot.name}</h3>
        {now && then && (
          <ButtonLink
            to={`/a/${slug}/ground/${area_id}/seen/compare?then=${then.id}&now=${now.id}`}
            aria-label={`Compare the last two of ${spot.name}`}
          >
            Compare the last two
          </ButtonLink>
        )}
        {may && photos.length === 0 && (
          <Button
            look="quiet"
            aria-label={`Remove the spot ${spot.name}`}
            onPress={() =>
              remove.mutate(spot.id, { onSuccess: () => say(`${spot.name} is no spot any more.`) })
            }
          >
            Remove
          </Button>
        )}
      </Head>
      {photos.length > 0 ? (
        <Thumbs of={[...photos].reverse()} label={`${spot.name} over the season`} />
      ) : (
        <Hint>No picture of it yet.</Hint>
      )}
    </Spot>
  );
}

/** The way from a photograph back to its area. */
export function BackTo({ area_id, name }: { area_id: number; name: string }) {
  return <Link to={`/a/${useAccount().slug}/ground/${area_id}/seen`}>All that was seen on {name}</Link>;
}
