import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { useProductOptions, useProducts } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { useListAddress } from "../../app/useListAddress";
import { ButtonLink } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { Hint } from "../../parts/Field";
import { Ledger } from "../../parts/Ledger";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { Finder } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { Waiting } from "../../parts/Waiting";
import { holds } from "../../parts/searching";

type Product = Schemas["ProductOut"];

/** Whether every word stands somewhere on a card. */
const found = (p: Product, words: string) =>
  holds(
    [
      p.name,
      p.kind_text,
      p.group_code,
      p.note,
      ...p.contents.map((c) => c.name),
      ...p.rates.flatMap((r) => [r.use, r.target]),
    ],
    words,
  );

const usual = { words: "", kind: "", target: "", by: "name" };

/** The account's products. */
export function Shelf() {
  const account = useAccount();
  const products = useProducts();
  const options = useProductOptions();
  const may = useMay("manager");
  const { value, set } = useListAddress(usual);
  const { words, kind, target, by } = value;
  const add = (
    <ButtonLink look="main" to="new">
      Add a product
    </ButtonLink>
  );
  return (
    <Waiting of={products}>
      {(list) => {
        const shown = list.filter(
          (p) => found(p, words) && (!kind || p.kind === kind) && (!target || p.targets.includes(target)),
        );
        if (by === "kind") shown.sort((a, b) => a.kind_text.localeCompare(b.kind_text));
        const kinds = new Set(list.map((p) => p.kind));
        const targets = new Set(list.flatMap((p) => p.targets));
        return (
          <Page
            sentence={
              list.length
                ? `${list.length === 1 ? "One product" : `${list.length} products`} on the shelf.`
                : "The shelf is empty."
            }
            act={
              <>
                <ButtonLink to="stock">Stock and needs</ButtonLink>
                <ButtonLink to="files">Import and export</ButtonLink>
                {may && list.length > 0 && add}
              </>
            }
          >
            {list.length === 0 ? (
              <Empty act={may && add}>
                Take a product’s label and type its rate just as it is printed. Composition and density make
                nutrients and actives countable; a price makes the cost.
              </Empty>
            ) : (
              <>
                {list.length > 6 && (
                  <Finder $columns={4}>
                    <TextField
                      label="Search"
                      name="words"
                      value={words}
                      onChange={(to) => set({ words: to })}
                    />
                    <PickField
                      label="Type"
                      name="kind"
                      value={kind}
                      options={[
                        { key: "", text: "All" },
                        ...(options.data?.kinds ?? []).filter((k) => kinds.has(k.key)),
                      ]}
                      onChange={(to) => set({ kind: to })}
                    />
                    <PickField
                      label="Target"
                      name="target"
                      value={target}
                      options={[
                        { key: "", text: "Anything" },
                        ...(options.data?.targets ?? [])
                          .filter((x) => targets.has(x.key))
                          .map((x) => ({ key: x.key, text: x.text, note: x.kind })),
                      ]}
                      onChange={(to) => set({ target: to })}
                    />
                    <PickField
                      label="Order"
                      name="by"
                      value={by}
                      options={[
                        { key: "name", text: "By name" },
                        { key: "kind", text: "By type" },
                      ]}
                      onChange={(to) => set({ by: to })}
                    />
                  </Finder>
                )}
                {shown.length === 0 && <Hint>Nothing on the shelf is like that.</Hint>}
                {shown.length > 0 && (
                  <Ledger>
                    <thead>
                      <tr>
                        <th>Product</th>
                        <th>Rates, as the label prints them</th>
                        <th className="wide">Holds</th>
                        <th className="wide">Group</th>
                        <th className="wide figure">Package</th>
                        <th className="figure">In stock</th>
                      </tr>
                    </thead>
                    <tbody>
                      {shown.map((p) => (
                        <tr key={p.id}>
                          <td>
                            <Link to={`/a/${account.slug}/shelf/${p.id}`}>{p.name}</Link>
                            <div className="soft">
                              {p.kind_text}, {p.formulation}
                            </div>
                          </td>
                          <td>
                            {p.rates.map((r) => (
                              <div key={r.id}>
                                {r.phrase} {r.use && <span className="soft">{r.use}</span>}
                              </div>
                            ))}
                          </td>
                          <td className="wide">
                            {p.contents.map((c) => (
                              <div key={c.text}>{c.text}</div>
                            ))}
                          </td>
                          <td className="wide soft">{p.codes.join(", ")}</td>
                          <td className="wide figure">
                            {p.packages.map((k) => (
                              <div key={k.text}>
                                {k.text}{" "}
                                {k.price && <span className="soft">{`${k.price} ${p.currency}`}</span>}
                              </div>
                            ))}
                          </td>
                          <td className="figure">{p.stock}</td>
                        </tr>
                      ))}
                    </tbody>
                  </Ledger>
                )}
              </>
            )}
          </Page>
        );
      }}
    </Waiting>
  );
}
