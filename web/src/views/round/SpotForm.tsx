import { api, read, send, type Schemas } from "../../api/client";
import { useChange, useProducts } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { faultsOf } from "../../parts/faults";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { QuantityField, type TypedQuantity } from "../../parts/QuantityField";
import { Bar, Fields, OnScreen, Section } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { areaUnits, volumeUnits } from "../../parts/units";
import { AsMet, DoneWhen, justNow, unmet, type Done, type Met } from "./AsMet";
import { LotPick } from "./LotPick";

interface Typed extends Met, Done {
  place: number;
  spray: TypedQuantity;
  treated: TypedQuantity;
  lots: string[];
  reason: string;
}

interface Props {
  round: Schemas["RoundOut"];
  spots: Schemas["SpotsOut"];
}

const untold = (round: Schemas["RoundOut"], spots: Schemas["SpotsOut"]): Typed => ({
  ...unmet,
  ...justNow,
  place: 0,
  spray: { value: "", unit: spots.left.unit },
  treated: { value: "", unit: round.parts[0]!.treated.unit },
  lots: round.mix.map(() => ""),
  reason: "",
});

/** One outing to the spots, put in the book; and the end of the mix. */
export function SpotForm({ round, spots }: Props) {
  const account = useAccount();
  const products = useProducts().data ?? [];
  const { value, change, clear } = useDraft<Typed>(
    `${account.slug}/outing/${round.id}`,
    untold(round, spots),
  );
  const go = useChange((path, body: Schemas["OutingIn"]) =>
    read(
      send.POST("/api/accounts/{account}/rounds/{round_id}/outings", {
        params: { path: { ...path, round_id: round.id } },
        body,
      }),
    ),
  );
  const empty = useChange((path, how: Schemas["EmptiedIn"]["how"]) =>
    read(
      api.POST("/api/accounts/{account}/rounds/{round_id}/empty", {
        params: { path: { ...path, round_id: round.id } },
        body: { how },
      }),
    ),
  );
  const { lots, ...typed } = value;
  const submit = () =>
    go.mutate(
      {
        ...typed,
        spray: value.spray.value.trim() ? value.spray : null,
        treated: value.treated.value.trim() ? value.treated : null,
        lots: lots.map((lot) => (lot ? Number(lot) : null)),
        by: "",
        on: value.on || null,
      },
      {
        onSuccess: (now) => {
          clear({ ...untold(round, spots), lots, place: value.place });
          say(`The outing is in the book. ${now.spots?.sentence ?? ""}`);
        },
      },
    );
  const many = round.parts.length > 1;
  const asked = value.reason || spots.stale || faultsOf(go.error).fields.some((f) => f.field === "reason");
  return (
    <OnScreen>
      <Section title="An outing to the spots">
        <Hint style={{ marginBottom: 12 }}>
          Note the spray, the ground, or both: one follows from the other by what the sprayer puts down.
        </Hint>
        <Form label="An outing to the spots" error={go.error} onSubmit={submit}>
          <Fields $columns={3}>
            {many && (
              <PickField
                label="On"
                name="place"
                value={`${value.place}`}
                options={round.parts.map((p, i) => ({ key: `${i}`, text: p.name }))}
                onChange={(key) => change({ place: Number(key) })}
              />
            )}
            <QuantityField
              label="Spray put down"
              name="spray"
              value={value.spray}
              units={volumeUnits(account.units)}
              onChange={(spray) => change({ spray })}
              hint={spots.sentence}
            />
            <QuantityField
              label="Ground of the spots"
              name="treated"
              value={value.treated}
              units={areaUnits(account.units)}
              onChange={(treated) => change({ treated })}
            />
            {round.mix.map((c, i) => (
              <LotPick
                key={c.product_id}
                label={round.mix.length > 1 ? `Lot of ${c.product}` : "Taken from lot"}
                name={`lots.${i}`}
                lots={products.find((p) => p.id === c.product_id)?.lots ?? []}
                value={lots[i] ?? ""}
                onChange={(lot) =>
                  change({ lots: round.mix.map((_, j) => (j === i ? lot : (lots[j] ?? ""))) })
                }
              />
            ))}
            <AsMet value={value} change={change} />
            <DoneWhen value={value} change={change} />
            {asked && (
              <TextField
                label="Reason"
                name="reason"
                value={value.reason}
                onChange={(reason) => change({ reason })}
                hint="Why it was done all the same."
              />
            )}
          </Fields>
          <Fault
            error={go.error ?? empty.error}
            besides={["place", "spray", "treated", "lots", "wind", "air", "note", "on", "clock", "reason"]}
          />
          <Bar>
            <Button look="main" type="submit" isDisabled={go.isPending}>
              Note this outing
            </Button>
            {spots.used_up && <Button onPress={() => empty.mutate("sprayed")}>It is sprayed out</Button>}
            <Button look="stop" onPress={() => empty.mutate("disposed")}>
              The rest was disposed of
            </Button>
          </Bar>
        </Form>
      </Section>
    </OnScreen>
  );
}
