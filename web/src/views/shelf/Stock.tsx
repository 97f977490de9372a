import { useState } from "react";
import { api, read, send, type Schemas } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { DateField } from "../../parts/DateField";
import { Form } from "../../parts/Form";
import { Ledger } from "../../parts/Ledger";
import { Fault } from "../../parts/Notice";
import { QuantityField } from "../../parts/QuantityField";
import { Bar, Fields, Section } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { doseUnits } from "../../parts/units";
import type { Product } from "./typed";
import { dated } from "../../parts/days";

type Lot = Product["lots"][number];

/** Keep a lot: a new one, or what is left of the one with this `id`. */
function useSaveLot(product_id: number) {
  return useChange((path, { id, ...body }: Schemas["LotIn"] & { id?: number }) =>
    id === undefined
      ? read(
          send.POST("/api/accounts/{account}/products/{product_id}/lots", {
            params: { path: { ...path, product_id } },
            body,
          }),
        )
      : read(
          send.PUT("/api/accounts/{account}/products/{product_id}/lots/{lot_id}", {
            params: { path: { ...path, product_id, lot_id: id } },
            body,
          }),
        ),
  );
}

/** What is left of each lot. A round's finish takes from the lot that is picked there. */
export function Stock({ product }: { product: Product }) {
  const may = useMay("applicator");
  const [open, setOpen] = useState<number | "new" | null>(null);
  const lot = product.lots.find((x) => x.id === open);
  const remove = useChange((path, lot_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/products/{product_id}/lots/{lot_id}", {
        params: { path: { ...path, product_id: product.id, lot_id } },
      }),
    ),
  );
  const putBack = useSaveLot(product.id);
  const offTheShelf = ({ id, left, ...rest }: Lot) =>
    remove.mutate(id, {
      onSuccess: () =>
        say(`Lot ${rest.number} is off the shelf.`, () =>
          putBack.mutate({ ...rest, left: { value: left.exact, unit: left.unit } }),
        ),
    });
  return (
    <Section title={product.stock ? `On the shelf: ${product.stock}` : "On the shelf"}>
      <Fault error={remove.error ?? putBack.error} />
      {product.lots.length > 0 && (
        <Ledger>
          <thead>
            <tr>
              <th>Lot</th>
              <th className="figure">Left</th>
              <th>Came</th>
              <th>Good until</th>
              {may && <th aria-label="Change" />}
            </tr>
          </thead>
          <tbody>
            {product.lots.map((x) => (
              <tr key={x.id}>
                <td>
                  {x.number} {x.note && <span className="soft">{x.note}</span>}
                </td>
                <td className="figure">{x.left.text}</td>
                <td>{x.received_on ? dated(x.received_on) : ""}</td>
                <td>
                  {x.expires_on ? dated(x.expires_on) : ""} {x.expired && <strong>past</strong>}
                </td>
                {may && (
                  <td className="figure">
                    <Button
                      look="quiet"
                      onPress={() => setOpen(x.id)}
                      aria-label={`Count it: lot ${x.number}`}
                    >
                      Count it
                    </Button>
                    <Button
                      look="quiet"
                      onPress={() => offTheShelf(x)}
                      aria-label={`Off the shelf: lot ${x.number}`}
                    >
                      Off the shelf
                    </Button>
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </Ledger>
      )}
      {may && open === null && (
        <Bar>
          <Button onPress={() => setOpen("new")}>A new lot</Button>
        </Bar>
      )}
      {open !== null && <LotForm key={`${open}`} product={product} lot={lot} onDone={() => setOpen(null)} />}
    </Section>
  );
}

function LotForm({
  product,
  lot,
  onDone,
}: {
  product: Product;
  lot?: Schemas["LotOut"];
  onDone: () => void;
}) {
  const account = useAccount();
  const units = doseUnits(account.units, product.liquid);
  const [typed, setTyped] = useState({
    version: lot?.version ?? null,
    number: lot?.number ?? "",
    left: { value: lot?.left.exact ?? "", unit: lot?.left.unit ?? units[0]!.key },
    received_on: lot?.received_on ?? "",
    expires_on: lot?.expires_on ?? "",
    note: lot?.note ?? "",
  });
  const change = (part: Partial<typeof typed>) => setTyped((now) => ({ ...now, ...part }));
  const save = useSaveLot(product.id);
  return (
    <Form
      label="Lot"
      error={save.error}
      onSubmit={() =>
        save.mutate(
          {
            ...typed,
            id: lot?.id,
            received_on: typed.received_on || null,
            expires_on: typed.expires_on || null,
          },
          {
            onSuccess: () => {
              say(`Lot ${typed.number} is counted.`);
              onDone();
            },
          },
        )
      }
    >
      <Fields $columns={4} style={{ marginTop: 16 }}>
        <TextField
          label="Lot number"
          name="number"
          value={typed.number}
          onChange={(number) => change({ number })}
        />
        <QuantityField
          label="Left"
          name="left"
          value={typed.left}
          units={units}
          onChange={(left) => change({ left })}
        />
        <DateField
          label="Came on"
          name="received_on"
          value={typed.received_on}
          onChange={(received_on) => change({ received_on })}
        />
        <DateField
          label="Good until"
          name="expires_on"
          value={typed.expires_on}
          onChange={(expires_on) => change({ expires_on })}
        />
      </Fields>
      <Fault error={save.error} besides={["number", "left", "received_on", "expires_on"]} />
      <Bar>
        <Button type="submit" isDisabled={save.isPending}>
          {lot ? "Keep the count" : "Put the lot on the shelf"}
        </Button>
        <Button onPress={onDone}>Leave it</Button>
      </Bar>
    </Form>
  );
}
