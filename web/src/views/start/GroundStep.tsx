import { read, send, type Schemas } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { useThereAndBack } from "../../app/useBack";
import { Button, ButtonLink } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Bar, Fields } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { areaUnits } from "../../parts/units";
import { toAreaIn, typedArea } from "../ground/typedArea";

const MIXED = "mixed";

/** The first ground: what it is called, how large it is, what grows there. */
export function GroundStep({ options }: { options: Schemas["GroundOptionsOut"] }) {
  const account = useAccount();
  const there = useThereAndBack();
  const lawn = account.keeps === "lawn";
  const { value, change, clear } = useDraft(`${account.slug}/start/ground`, {
    ...typedArea(undefined, account.units === "us"),
    name: lawn ? "Lawn" : "",
    grass: MIXED,
    use: account.keeps === "grounds" ? "" : "lawn",
  });
  const add = useChange((path, body: Schemas["AreaIn"]) =>
    read(send.POST("/api/accounts/{account}/areas", { params: { path }, body })),
  );
  const submit = () => add.mutate(toAreaIn(value, false), { onSuccess: () => clear() });
  return (
    <Form label="Your ground" error={add.error} onSubmit={submit}>
      <Fields $columns={4} style={{ marginTop: 12 }}>
        <TextField
          needed
          label="Name"
          name="name"
          value={value.name}
          onChange={(name) => change({ name })}
          hint={lawn ? undefined : "Such as Green 7, Court 2, Front lawn."}
        />
        <QuantityField
          needed
          label="Size"
          name="size"
          value={value.size}
          units={areaUnits(account.units)}
          onChange={(size) => change({ size })}
          hint="The turf alone, without beds and paths."
        />
        <PickField
          label="Grass"
          name="grass"
          value={value.grass}
          options={options.grasses.map((g) => ({
            key: g.key,
            text: g.key === MIXED ? "Mixed, or not known" : g.name,
            note: g.botanical,
          }))}
          onChange={(grass) => change({ grass })}
          hint="Labels give rates by it."
        />
        <PickField
          label="Kept as"
          name="use"
          value={value.use}
          options={[{ key: "", text: "Not noted" }, ...options.uses]}
          onChange={(use) => change({ use })}
        />
      </Fields>
      <Fault error={add.error} besides={["name", "size", "grass", "use"]} />
      <Bar>
        <Button look="main" type="submit" isDisabled={add.isPending}>
          Next: a product
        </Button>
        <ButtonLink look="quiet" to={there("ground/new")}>
          Measure it: tape, offsets, positions
        </ButtonLink>
      </Bar>
    </Form>
  );
}
