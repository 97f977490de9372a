import { useNavigate } from "react-router";
import { api, read, type Schemas } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useClub } from "../../app/session";
import { say } from "../../app/toast";
import { Button, ButtonLink } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Bar, Fields, Hint } from "../../parts/forms";
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
  const navigate = useNavigate();
  const { value, change, clear, kept } = useDraft(
    `${club.slug}/area/${area?.id ?? "new"}`,
    typed(area, club.units),
  );
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
  const put = useChange((path, area_id: number) =>
    read(api.POST("/api/clubs/{club}/areas/{area_id}/put-back", { params: { path: { ...path, area_id } } })),
  );
  const remove = useChange((path, area_id: number) =>
    read(api.DELETE("/api/clubs/{club}/areas/{area_id}", { params: { path: { ...path, area_id } } })),
  );
  const back = () => void navigate(`/c/${club.slug}/ground`);
  const submit = () =>
    save.mutate(
      { ...value, height: value.height.value.trim() ? value.height : null },
      {
        onSuccess: (saved) => {
          clear();
          say(area ? `${saved.name} is changed.` : `${saved.name} is on the ground list.`);
          back();
        },
      },
    );
  return (
    <Page
      sentence={area ? `${area.name}, as it stands.` : "A new area: how big is it, and what grows there?"}
    >
      <Form label="Area" error={save.error} onSubmit={submit}>
        {kept && <Hint>Brought back from what you had typed before.</Hint>}
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
        <Fault error={save.error} besides={["name", "size", "grass", "height", "note"]} />
        <Bar>
          <Button look="main" type="submit" isDisabled={save.isPending}>
            {area ? "Save the changes" : "Add the area"}
          </Button>
          <ButtonLink to={`/c/${club.slug}/ground`} onClick={() => clear()}>
            Leave it
          </ButtonLink>
          {area && (
            <Button
              look="stop"
              onPress={() =>
                remove.mutate(area.id, {
                  onSuccess: () => {
                    clear();
                    say(`${area.name} is put away. The book keeps it.`, () => put.mutate(area.id));
                    back();
                  },
                })
              }
            >
              Put the area away
            </Button>
          )}
        </Bar>
      </Form>
    </Page>
  );
}
