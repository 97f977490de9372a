import { useNavigate } from "react-router";
import { read, send, type Schemas } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { useThereAndBack } from "../../app/useBack";
import { Button, ButtonLink } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Fault, Notice } from "../../parts/Notice";
import { OneOf } from "../../parts/OneOf";
import { QuantityField, typedOf } from "../../parts/QuantityField";
import { Bar, Fields } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { outputUnits } from "../../parts/units";
import { capacityUnits, toMachineIn, typedMachine } from "../kit/typedMachine";
import { looks } from "./looks";

type Options = Schemas["KitOptionsOut"];
type Form_ = Options["forms"][number];
type Known = "assumed" | "known" | "measure";

interface Own {
  form: string;
  name: string | null;
  capacity: { value: string; unit: string } | null;
  known: Known;
  output: { value: string; unit: string };
}

/** What of the shelf a machine of this build cannot put down, in words. */
function shut(form: Form_, products: Schemas["ProductOut"][]): string {
  const not = products.filter((p) => !form.takes.includes(p.id));
  if (!products.length || not.length < products.length) return "";
  const how = form.kind === "sprayer" ? "spread dry" : "sprayed";
  return products.length === 1 ? `${products[0]!.name} is ${how}` : `All on your shelf is ${how}`;
}

/** The first machine, by what it looks like, with an output to measure, to type or to assume. */
export function MachineStep({ options, products }: { options: Options; products: Schemas["ProductOut"][] }) {
  const account = useAccount();
  const blank = typedMachine(undefined, account.units === "us");
  const there = useThereAndBack();
  const navigate = useNavigate();
  const { value, change, clear } = useDraft<Own>(`${account.slug}/start/machine`, {
    form: "",
    name: null,
    capacity: null,
    known: "assumed",
    output: blank.output,
  });
  const form = options.forms.find((f) => f.key === value.form);
  const name = value.name ?? form?.text.split(",")[0] ?? "";
  const capacity = value.capacity ?? typedOf(form?.capacity, blank.capacity.unit);
  const sprays = form?.kind === "sprayer" && form.key !== "hose_end";
  const add = useChange((path, body: Schemas["MachineIn"]) =>
    read(send.POST("/api/accounts/{account}/machines", { params: { path }, body })),
  );
  const submit = () => {
    const { exact, unit } = options.assumed_output;
    const outputs = { assumed: { value: exact, unit }, known: value.output, measure: blank.output };
    add.mutate(
      toMachineIn({
        ...blank,
        name,
        capacity,
        kind: form?.kind ?? "sprayer",
        form: value.form,
        output: sprays ? outputs[value.known] : blank.output,
        output_assumed: sprays && value.known === "assumed",
      }),
      {
        onSuccess: (machine) => {
          clear();
          if (sprays && value.known === "measure") void navigate(there(`kit/${machine.id}/calibrate`));
        },
      },
    );
  };
  return (
    <Form label="A machine" error={add.error} onSubmit={submit}>
      <div style={{ marginTop: 12 }}>
        <OneOf
          needed
          label="What does it look like?"
          columns={5}
          value={value.form || null}
          options={[...options.forms]
            .sort((a, b) => Number(!!shut(a, products)) - Number(!!shut(b, products)))
            .map((f) => ({
              key: f.key,
              text: f.text,
              note: shut(f, products) ? "Not for what is on your shelf" : undefined,
              picture: looks[f.key],
            }))}
          onChange={(key) => change({ form: key, name: null, capacity: null })}
        />
      </div>
      {form && (
        <>
          {shut(form, products) && (
            <Notice tone="caution">{`${shut(form, products)}: this machine cannot put it down.`}</Notice>
          )}
          <Fields $columns={4} style={{ marginTop: 16 }}>
            <TextField
              needed
              label="Call it"
              name="name"
              value={name}
              onChange={(next) => change({ name: next })}
            />
            <QuantityField
              needed
              label={form.kind === "sprayer" ? "Its tank holds" : "Its hopper holds"}
              name="capacity"
              value={capacity}
              units={capacityUnits(form.kind, form.key, account.units)}
              onChange={(next) => change({ capacity: next })}
              hint="What such a machine usually holds: put it right."
            />
          </Fields>
          {sprays && (
            <div style={{ marginTop: 16 }}>
              <OneOf
                label="How much water does it put down?"
                columns={3}
                value={value.known}
                options={[
                  {
                    key: "assumed",
                    text: `About ${options.assumed_output.text}`,
                    note: "A guess, said so until it is measured",
                  },
                  { key: "known", text: "I know it", note: "From a calibration of before" },
                  { key: "measure", text: "Measure it now", note: "Five minutes, with water and a cup" },
                ]}
                onChange={(key) => change({ known: key as Known })}
              />
            </div>
          )}
          {sprays && value.known === "known" && (
            <Fields $columns={4} style={{ marginTop: 16 }}>
              <QuantityField
                needed
                label="Output of one pass"
                name="output"
                value={value.output}
                units={outputUnits(account.units)}
                onChange={(output) => change({ output })}
              />
            </Fields>
          )}
        </>
      )}
      <Fault error={add.error} besides={["name", "capacity", "output"]} />
      <Bar>
        <Button look="main" type="submit" isDisabled={add.isPending || !form}>
          Add the machine
        </Button>
        <ButtonLink look="quiet" to={there("kit/new")}>
          All fields
        </ButtonLink>
      </Bar>
    </Form>
  );
}
