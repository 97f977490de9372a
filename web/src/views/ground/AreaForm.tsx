import { useState } from "react";
import { api, read, send, type Schemas } from "../../api/client";
import { useAreas, useChange } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { Button } from "../../parts/Button";
import { CardForm } from "../../parts/CardForm";
import { DateField } from "../../parts/DateField";
import { Hint } from "../../parts/Field";
import { Line } from "../../parts/Line";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField, type TypedQuantity } from "../../parts/QuantityField";
import { Fields, Section, Stack } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";
import { areaUnits, distanceUnits, heightUnits } from "../../parts/units";
import { BlendLines, NO_GRASS } from "./BlendLines";
import { MeasureBench } from "./MeasureBench";
import { blankSketch, toMeasure, type Sketch } from "./sketch";

type Area = Schemas["AreaOut"];

interface Typed {
  version: number | null;
  site: string;
  name: string;
  size: TypedQuantity;
  share: string;
  parent: string;
  grass: string;
  blend: { grass: string; share: string }[];
  cultivar: string;
  use: string;
  height: TypedQuantity;
  texture: string;
  shade: string;
  slope: string;
  zone: string;
  sown_on: string;
  overseed_on: string;
  stress: string;
  tested_p: boolean;
  hazards: { kind: string; name: string; buffer: TypedQuantity; lies?: Schemas["LiesIn"] | null }[];
  note: string;
  sketch: Sketch;
}

function typed(area: Area | undefined, us: boolean): Typed {
  const length = us ? "ft" : "m";
  return {
    version: area?.version ?? null,
    site: area ? `${area.site_id}` : "",
    name: area?.name ?? "",
    size: { value: area?.size.exact ?? "", unit: area?.size.unit ?? (us ? "ft2" : "m2") },
    share: "",
    parent: area?.parent_id ? `${area.parent_id}` : "",
    grass: area?.grass ?? "",
    blend: area?.blend ?? [],
    cultivar: area?.cultivar ?? "",
    use: area?.use ?? "",
    height: { value: area?.height?.exact ?? "", unit: area?.height?.unit ?? (us ? "in" : "mm") },
    texture: area?.texture ?? "",
    shade: area?.shade ?? "",
    slope: area?.slope ?? "",
    zone: area?.zone ?? "",
    sown_on: area?.sown_on ?? "",
    overseed_on: area?.overseed_on ?? "",
    stress: area?.stress ?? "none",
    tested_p: area?.tested_p ?? false,
    hazards:
      area?.hazards.map((h) => ({
        kind: h.kind,
        name: h.name,
        buffer: { value: h.buffer?.exact ?? "", unit: h.buffer?.unit ?? length },
        lies: h.lies,
      })) ?? [],
    note: area?.note ?? "",
    sketch: blankSketch(us),
  };
}

function toAreaIn(v: Typed, measured: boolean): Schemas["AreaIn"] {
  const measure = measured ? toMeasure(v.sketch) : null;
  return {
    version: v.version,
    site_id: v.site ? Number(v.site) : null,
    name: v.name,
    size: measure || v.share.trim() ? null : v.size.value.trim() ? v.size : null,
    share: measure ? "" : v.share,
    measure,
    parent_id: v.parent ? Number(v.parent) : null,
    grass: v.grass,
    blend: v.blend
      .filter((b) => b.grass || b.share.trim())
      .map((b) => ({ grass: b.grass, share: b.share.trim() || null })),
    cultivar: v.cultivar,
    use: v.use,
    height: v.height.value.trim() ? v.height : null,
    texture: v.texture,
    shade: v.shade,
    slope: v.slope.trim() || null,
    zone: v.zone,
    sown_on: v.sown_on || null,
    overseed_on: v.overseed_on || null,
    stress: v.stress,
    tested_p: v.tested_p,
    hazards: v.hazards.map((h) => ({ ...h, buffer: h.buffer.value.trim() ? h.buffer : null })),
    note: v.note,
  };
}

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
  const draft = useDraft<Typed>(`${account.slug}/area/${area?.id ?? "new"}`, typed(area, us));
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
  const setHazard = (i: number, part: Partial<Typed["hazards"][number]>) =>
    change({ hazards: value.hazards.map((h, j) => (j === i ? { ...h, ...part } : h)) });
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
          <Stack $gap={14}>
            {value.hazards.map((h, i) => (
              <Line key={i} $columns="minmax(0, 2fr) minmax(0, 3fr) minmax(0, 3fr)">
                <PickField
                  label="What"
                  name={`hazards.${i}.kind`}
                  value={h.kind}
                  options={options.hazards}
                  onChange={(kind) => setHazard(i, { kind })}
                />
                <TextField
                  label="Where"
                  name={`hazards.${i}.name`}
                  value={h.name}
                  onChange={(name) => setHazard(i, { name })}
                />
                <QuantityField
                  label="Keep away"
                  name={`hazards.${i}.buffer`}
                  value={h.buffer}
                  units={distanceUnits(account.units)}
                  onChange={(buffer) => setHazard(i, { buffer })}
                />
                <Button
                  aria-label={`Remove ${h.name || `line ${i + 1}`}`}
                  onPress={() => change({ hazards: value.hazards.filter((_, j) => j !== i) })}
                >
                  Remove
                </Button>
              </Line>
            ))}
            {value.hazards.length === 0 && <Hint>Drains, water, wells, neighbours, beds, paths.</Hint>}
            <div>
              <Button
                onPress={() =>
                  change({
                    hazards: [
                      ...value.hazards,
                      { kind: "drain", name: "", buffer: { value: "", unit: us ? "ft" : "m" } },
                    ],
                  })
                }
              >
                Another thing to keep off
              </Button>
            </div>
          </Stack>
        </Section>
        <Section title="More about it">
          <Fields $columns={4}>
            <TextField
              label="Cultivar or blend"
              name="cultivar"
              value={value.cultivar}
              onChange={(cultivar) => change({ cultivar })}
            />
            <PickField
              label="Soil"
              name="texture"
              value={value.texture}
              options={[nothing, ...options.textures]}
              onChange={(texture) => change({ texture })}
            />
            <PickField
              label="Shade"
              name="shade"
              value={value.shade}
              options={[nothing, ...options.shades]}
              onChange={(shade) => change({ shade })}
            />
            <TextField
              label="Slope, %"
              name="slope"
              value={value.slope}
              onChange={(slope) => change({ slope })}
              input={{ inputMode: "decimal" }}
            />
            <TextField
              label="Irrigation zone"
              name="zone"
              value={value.zone}
              onChange={(zone) => change({ zone })}
            />
            <DateField
              label="Sown on"
              name="sown_on"
              value={value.sown_on}
              onChange={(sown_on) => change({ sown_on })}
            />
            <DateField
              label="To be overseeded on"
              name="overseed_on"
              value={value.overseed_on}
              onChange={(overseed_on) => change({ overseed_on })}
            />
            <div style={{ paddingTop: 20 }}>
              <Switch value={value.tested_p} onChange={(tested_p) => change({ tested_p })}>
                A soil test asks for phosphorus
              </Switch>
            </div>
          </Fields>
          <div style={{ marginTop: 16 }}>
            <TextField
              label="Note"
              name="note"
              lines
              value={value.note}
              onChange={(note) => change({ note })}
              hint="What one must know out there."
            />
          </div>
        </Section>
      </CardForm>
    </Page>
  );
}
