import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../../api/client";
import {
  maskOf,
  pictureOf,
  useChangePhoto,
  useColour,
  useEyes,
  useRemovePhoto,
  type Photo,
} from "../../../api/scouting";
import { useAccount, useMay } from "../../../app/session";
import { t } from "../../../app/theme";
import { say } from "../../../app/toast";
import { Button } from "../../../parts/Button";
import { DateField, TimeField } from "../../../parts/DateField";
import { Empty } from "../../../parts/Empty";
import { Facts } from "../../../parts/Facts";
import { Hint } from "../../../parts/Field";
import { Form } from "../../../parts/Form";
import { Fault, Notice } from "../../../parts/Notice";
import { Page } from "../../../parts/Page";
import { Bar, Fields, Section } from "../../../parts/Section";
import { TextField } from "../../../parts/TextField";
import { Waiting } from "../../../parts/Waiting";
import { BackTo } from "./SeenPage";
import { ShotFields } from "./ShotFields";

const Picture = styled.img`
  display: block;
  width: 100%;
  max-width: 760px;
  border: 1px solid ${t.rule};
  background: ${t.wash};
`;

/** One photograph: what is noted of it, and what its colours say. */
export function PhotoPage() {
  const { id, photo } = useParams();
  const eyes = useEyes(Number(id));
  return (
    <Waiting of={eyes}>
      {(found) => {
        const one = found.photos.find((p) => p.id === Number(photo));
        if (!one) {
          return (
            <Page sentence="That photograph is not there.">
              <Empty act={<BackTo area_id={found.area_id} name={found.area} />}>
                It may have been removed.
              </Empty>
            </Page>
          );
        }
        return <One key={`${one.id}.${one.version}`} photo={one} spots={found.spots} />;
      }}
    </Waiting>
  );
}

function One({ photo, spots }: { photo: Photo; spots: Schemas["SpotOut"][] }) {
  const { slug } = useAccount();
  const may = useMay("applicator");
  const [wanted, setWanted] = useState(false);
  const colour = useColour(photo.id, wanted);
  return (
    <Page
      sentence={`${photo.spot || photo.area}, ${photo.taken}.`}
      margin={
        <>
          <Section title="What is noted of it">
            <Facts
              of={[
                ["Area", photo.area],
                ["Spot", photo.spot],
                ["Taken", photo.taken],
                ["Noted", photo.text],
                ["By", photo.by],
              ]}
            />
          </Section>
          <Section title="Its colours">
            {!wanted ? (
              <Button onPress={() => setWanted(true)}>Read its colours</Button>
            ) : (
              <Waiting of={colour}>
                {(found) => (
                  <>
                    <Facts of={found.facts.map((f) => [f.name, f.text])} />
                    {found.doubts.map((said) => (
                      <Notice key={said} tone="caution" word="Doubt">
                        {said}
                      </Notice>
                    ))}
                    <Hint style={{ marginTop: 10 }}>
                      Numbers to compare within one light, never a verdict: light and white balance change
                      them more than a treatment does. Faded in the picture is what does not count as green
                      turf.
                    </Hint>
                    {found.sources.map((s) => (
                      <Hint key={s} style={{ marginTop: 6 }}>
                        {s}
                      </Hint>
                    ))}
                    <Button look="quiet" onPress={() => setWanted(false)}>
                      Show the picture as it was taken
                    </Button>
                  </>
                )}
              </Waiting>
            )}
          </Section>
        </>
      }
    >
      <Picture
        src={wanted ? maskOf(slug, photo.id) : pictureOf(slug, photo.id)}
        width={photo.width}
        height={photo.height}
        style={{ height: "auto" }}
        alt={
          wanted
            ? "The picture, faded where it is no green turf"
            : `${photo.spot || photo.area}, ${photo.taken}`
        }
      />
      {may && <Change photo={photo} spots={spots} />}
      <p style={{ marginTop: 18 }}>
        <BackTo area_id={photo.area_id} name={photo.area} />
      </p>
    </Page>
  );
}

function Change({ photo, spots }: { photo: Photo; spots: Schemas["SpotOut"][] }) {
  const { slug } = useAccount();
  const change = useChangePhoto();
  const remove = useRemovePhoto();
  const navigate = useNavigate();
  const [sure, setSure] = useState(false);
  const [v, setV] = useState({
    spot: photo.spot_id === null ? "" : String(photo.spot_id),
    light: photo.light,
    mown: photo.mown,
    note: photo.note,
    on: photo.on,
    clock: photo.clock,
  });
  const set = (part: Partial<typeof v>) => setV((now) => ({ ...now, ...part }));
  const body: Schemas["PhotoIn"] = {
    spot_id: v.spot ? Number(v.spot) : null,
    report_id: photo.report_id,
    light: v.light,
    mown: v.mown,
    note: v.note,
    on: v.on,
    clock: v.clock,
    version: photo.version,
  };
  return (
    <Section title="Put it right">
      <Form
        label="What is noted of the photograph"
        error={change.error}
        onSubmit={() => change.mutate({ id: photo.id, body }, { onSuccess: () => say("It is noted.") })}
      >
        <Fields $columns={3}>
          <ShotFields value={v} onChange={set} spots={spots} />
          <DateField label="Taken on" name="on" value={v.on} onChange={(on) => set({ on })} />
          <TimeField label="At" name="clock" value={v.clock} onChange={(clock) => set({ clock })} />
          <TextField label="Note" name="note" value={v.note} onChange={(note) => set({ note })} />
        </Fields>
        <Bar style={{ marginTop: 14 }}>
          <Button type="submit" look="main" isDisabled={change.isPending}>
            Save
          </Button>
          {sure ? (
            <>
              <Button
                look="stop"
                isDisabled={remove.isPending}
                onPress={() =>
                  remove.mutate(photo.id, {
                    onSuccess: () => {
                      say("The photograph is removed.");
                      void navigate(`/a/${slug}/ground/${photo.area_id}/seen`, { replace: true });
                    },
                  })
                }
              >
                Remove it for good
              </Button>
              <Button look="quiet" onPress={() => setSure(false)}>
                Keep it
              </Button>
            </>
          ) : (
            <Button look="quiet" onPress={() => setSure(true)}>
              Remove the photograph
            </Button>
          )}
        </Bar>
        <Fault
          error={change.error ?? remove.error}
          besides={["spot_id", "light", "mown", "on", "clock", "note"]}
        />
      </Form>
    </Section>
  );
}
