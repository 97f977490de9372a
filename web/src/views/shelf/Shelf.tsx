import { Link } from "react-router";
import { useProducts } from "../../api/hooks";
import { useClub, useMay } from "../../app/session";
import { ButtonLink } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { Ledger } from "../../parts/Ledger";
import { Page } from "../../parts/Page";
import { Waiting } from "../../parts/Waiting";

/** The club's products. */
export function Shelf() {
  const club = useClub();
  const products = useProducts();
  const may = useMay("manager");
  const add = (
    <ButtonLink look="main" to="new">
      Add a product
    </ButtonLink>
  );
  return (
    <Waiting of={products}>
      {(list) => (
        <Page
          sentence={
            list.length
              ? `${list.length === 1 ? "One product" : `${list.length} products`} on the shelf.`
              : "The shelf is empty."
          }
          act={may && list.length > 0 && add}
        >
          {list.length === 0 ? (
            <Empty act={may && add}>
              Take a product’s label and type its rate just as it is printed. Composition and density make
              nutrients and actives countable; a price makes the cost.
            </Empty>
          ) : (
            <Ledger>
              <thead>
                <tr>
                  <th>Product</th>
                  <th>Type</th>
                  <th>Rates, as the label prints them</th>
                  <th className="wide">Holds</th>
                  <th className="wide">Group</th>
                  <th className="wide figure">Package</th>
                </tr>
              </thead>
              <tbody>
                {list.map((p) => (
                  <tr key={p.id}>
                    <td>{may ? <Link to={`/c/${club.slug}/shelf/${p.id}`}>{p.name}</Link> : p.name}</td>
                    <td className="soft">
                      {p.kind_text}, {p.formulation}
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
                    <td className="wide soft">{p.group_code}</td>
                    <td className="wide figure">
                      {p.package?.text}
                      {p.price && <div className="soft">{`${p.price} ${p.currency}`}</div>}
                    </td>
                  </tr>
                ))}
              </tbody>
            </Ledger>
          )}
        </Page>
      )}
    </Waiting>
  );
}
