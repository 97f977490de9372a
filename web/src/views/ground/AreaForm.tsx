import { useState } from "react";
import { api, read, send, type Schemas } from "../../api/client";
import { useAreas, useChange } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { Button } from "../../parts/Button";
import { CardForm } from "../../parts/CardForm";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Fields, Section } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { areaUnits, heightUnits } from "../../parts/units";
import { BlendLines, NO_GRASS } from "./BlendLines";
import { MeasureBench } from "./MeasureBench";
import { AreaMore } from "./AreaMore";
import { HazardRows } from "./HazardRows";
import { toAreaIn, typedArea, type Area, type TypedArea } from "./typedArea";

const placed = [
  "name",
  "site_id",
  "size",
  "share",
  "parent_id",
  "grass",
  "blend",
  "height",
  "slope",
  "stress",
  "use",
  "texture",
  "shade",
  "hazards",
  "note",
  "measure",
];

const MIXED = "mixed";

/** An area's form. What is half typed survives a reload. */
export function AreaForm({ area, options }: { area?: Area; options: Schemas["GroundOptionsOut"] }) {
  const account = useAccount();
  const us = account.units === "us";
  const areas = useAreas();
  const draft = useDraft<TypedArea>(`${account.slug}/area/${area?.id ?? "new"}`, typedArea(area, us));
  const { value, change } = draft;
  const [bench, setBench] = useState(value.sketch.method !== "");
  const save = useChange((path, body: Schemas["AreaIn"]) =>
    area
      ? read(
          send.PUT("/api/accounts/{account}/areas/{area_id}", {
            params: { path: { ...path, area_id: area.id } },
            body,
          }),
        )
      : read(send.POST("/api/accounts/{account}/areas", { params: { path }, body })),
  );
  const putBack = useChange((path, area_id: number) =>
    read(
      api.POST("/api/accounts/{account}/areas/{area_id}/put-back", {
        params: { path: { ...path, area_id } },
      }),
    ),
  );
  const remove = useChange((path, area_id: number) =>
    read(api.DELETE("/api/accounts/{account}/areas/{area_id}", { params: { path: { ...path, area_id } } })),
  );
  const wholes = (areas.data?.areas ?? []).filter((a) => a.id !== area?.id);
  const nothing = { key: "", text: "Not noted" };
  const turf = options.grasses.find((g) => g.key === value.grass)?.turf ?? true;
  return (
    <Page
      sentence={area ? `${area.name}, as it stands.` : "A new area: how big is it, and what grows there?"}
    >
      <CardForm
        what="area"
        place="ground"
        card={area}
        add="Add the area"
        added="is on the ground list"
        body={() => toAreaIn(value, bench)}
        save={save}
        remove={remove}
        putBack={putBack}
        draft={draft}
        placed={placed}
      >
        <Fields $columns={3}>
          <TextField
            needed
            label="Name"
            name="name"
            value={value.name}
            onChange={(name) => change({ name })}
          />
          {account.sites.length > 1 && (
            <PickField
              label="Site"
              name="site_id"
              value={value.site || `${account.sites[0]!.id}`}
              options={account.sites.map((s) => ({ key: `${s.id}`, text: s.name }))}
              onChange={(site) => change({ site })}
            />
          )}
          {!bench && (
            <QuantityField
              needed
              label="Size"
              name="size"
              value={value.size}
              units={areaUnits(account.units)}
              onChange={(size) => change({ size, share: "" })}
              hint={
                turf ? "The turf itself, without beds, paths and bunkers." : "What is planted, without paths."
              }
            />
          )}
          <PickField
            needed
            label="Grass"
            name="grass"
            value={value.grass || null}
            options={options.grasses.map((g) => ({ key: g.key, text: g.name, note: g.botanical }))}
            onChange={(grass) =>
              change({
                grass,
                blend: grass === MIXED && !value.blend.length ? [NO_GRASS, NO_GRASS] : value.blend,
              })
            }
            hint={turf ? undefined : "Only label rows that name ornamentals are for them."}
          />
          {turf && (
            <QuantityField
              label="Height of cut"
              name="height"
              value={value.height}
              units={heightUnits(account.units)}
              onChange={(height) => change({ height })}
              hint="Growth-regulator labels are read by it. Leave it empty where it is not mown."
            />
          )}
          <PickField
            label="Kept as"
            name="use"
            value={value.use}
            options={[nothing, ...options.uses]}
            onChange={(use) => change({ use })}
          />
          <PickField
            label="Stress now"
            name="stress"
            value={value.stress}
            options={options.stresses}
            onChange={(stress) => change({ stress })}
            hint="A plan for stressed turf is questioned."
          />
        </Fields>
        {value.grass === MIXED && (
          <BlendLines
            blend={value.blend}
            grasses={options.grasses.filter((g) => g.turf && g.key !== MIXED)}
            onChange={(blend) => change({ blend })}
          />
        )}
        {!area && (
          <div style={{ marginTop: 16 }}>
            <Button onPress={() => setBench(!bench)}>
              {bench ? "Type the size instead" : "Measure it: tape, offsets, radii, positions"}
            </Button>
          </div>
        )}
        {bench && (
          <Section title="Measuring">
            <MeasureBench
              sketch={value.sketch}
              onChange={(part) => change({ sketch: { ...value.sketch, ...part } })}
              methods={options.methods}
            />
          </Section>
        )}
        <Section title="Part of another area">
          <Fields $columns={3}>
            <PickField
              label="Part of"
              name="parent_id"
              value={value.parent}
              options={[
                { key: "", text: "No other" },
                ...wholes.map((a) => ({ key: `${a.id}`, text: a.name })),
              ]}
              onChange={(parent) => change({ parent })}
              hint="Half for a trial, the wet corner: it shares the history of the whole."
            />
            {value.parent && !bench && (
              <TextField
                label="As a share of it"
                name="share"
                value={value.share}
                onChange={(share) => change({ share })}
                hint="1/2 or 30 %, in place of a size."
              />
            )}
          </Fields>
        </Section>
        <Section title="What lies near">
          <HazardRows
            hazards={value.hazards}
            kinds={options.hazards}
            onChange={(hazards) => change({ hazards })}
          />
        </Section>
        <Section title="More about it">
          <AreaMore value={value} options={options} change={change} />
        </Section>
      </CardForm>
    </Page>
  );
}
