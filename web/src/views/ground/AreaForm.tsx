import { api, read, type Schemas } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useClub } from "../../app/session";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { CardForm } from "../../parts/CardForm";
import { Fields } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { areaUnits, heightUnits } from "../../parts/units";

type Area = Schemas["AreaOut"];

function typed(area: Area | undefined, system: "us" | "metric") {
  return {
    name: area?.name ?? "",
    size: { value: area?.size.exact ?? "", unit: area?.size.unit ?? (system === "us" ? "ft2" : "m2") },
    grass: area?.grass ?? "",
    height: { value: area?.height?.exact ?? "", unit: area?.height?.unit ?? (system === "us" ? "in" : "mm") },
    note: area?.note ?? "",
  };
}

/** An area's form. What is half typed survives a reload. */
export function AreaForm({ area, grasses }: { area?: Area; grasses: Schemas["GrassOut"][] }) {
  const club = useClub();
  const draft = useDraft(`${club.slug}/area/${area?.id ?? "new"}`, typed(area, club.units));
  const { value, change } = draft;
  const save = useChange((path, body: Schemas["AreaIn"]) =>
    area
      ? read(
          api.PUT("/api/clubs/{club}/areas/{area_id}", {
            params: { path: { ...path, area_id: area.id } },
            body,
          }),
        )
      : read(api.POST("/api/clubs/{club}/areas", { params: { path }, body })),
  );
  const putBack = useChange((path, area_id: number) =>
    read(api.POST("/api/clubs/{club}/areas/{area_id}/put-back", { params: { path: { ...path, area_id } } })),
  );
  const remove = useChange((path, area_id: number) =>
    read(api.DELETE("/api/clubs/{club}/areas/{area_id}", { params: { path: { ...path, area_id } } })),
  );
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
        body={() => ({ ...value, height: value.height.value.trim() ? value.height : null })}
        save={save}
        remove={remove}
        putBack={putBack}
        draft={draft}
        placed={["name", "size", "grass", "height", "note"]}
      >
        <Fields style={{ maxWidth: 760 }}>
          <TextField label="Name" name="name" value={value.name} onChange={(name) => change({ name })} />
          <QuantityField
            label="Size"
            name="size"
            value={value.size}
            units={areaUnits(club.units)}
            onChange={(size) => change({ size })}
            hint="The turf itself, without beds, paths and bunkers."
          />
          <PickField
            label="Grass"
            name="grass"
            value={value.grass || null}
            options={grasses.map((g) => ({ key: g.key, text: g.name, note: g.botanical }))}
            onChange={(grass) => change({ grass })}
          />
          <QuantityField
            label="Height of cut"
            name="height"
            value={value.height}
            units={heightUnits(club.units)}
            onChange={(height) => change({ height })}
            hint="Growth-regulator labels are read by it. Leave it empty where it is not mown."
          />
          <TextField
            label="Note"
            name="note"
            lines
            value={value.note}
            onChange={(note) => change({ note })}
            hint="Drains, water, neighbours, wet corners: what one must know out there."
          />
        </Fields>
      </CardForm>
    </Page>
  );
}
