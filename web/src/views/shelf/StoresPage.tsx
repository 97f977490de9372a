import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useStores } from "../../api/stores";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { Facts } from "../../parts/Facts";
import { Hint } from "../../parts/Field";
import { Ledger } from "../../parts/Ledger";
import { Page } from "../../parts/Page";
import { Section } from "../../parts/Section";
import { Waiting } from "../../parts/Waiting";

type Line = Schemas["StockLineOut"];
const Asked = styled.span<{ $grave: boolean }>`
  color: ${({ $grave }) => ($grave ? t.stop : t.caution)};
`;
const words: Record<string, string> = { past: "Stop", old: "A question", soon: "Use it first" };

/** What is to be looked at before it is used, and what is to be used first. */
function ToLookAt({ lines }: { lines: Line[] }) {
  const { slug } = useAccount();
  const jugs = lines.flatMap((line) =>
    line.jugs
      .filter((j) => words[j.keeps])
      .map((j) => ({ ...j, product: line.product, of: line.product_id })),
  );
  if (!jugs.length) return null;
  return (
    <Section title="Look at these">
      <Ledger>
        <tbody>
          {jugs.map((j) => (
            <tr key={j.id}>
              <td>
                <Link to={`/a/${slug}/shelf/${j.of}`}>{j.product}</Link>
                <div className="soft">{`Lot ${j.number}, ${j.left}`}</div>
              </td>
              <td>
                <Asked $grave={j.keeps === "past"}>
                  <strong>{words[j.keeps]}.</strong>
                </Asked>{" "}
                {j.text}
              </td>
            </tr>
          ))}
        </tbody>
      </Ledger>
    </Section>
  );
}

/** The shelf against the season: what is left since when, what is needed, what to buy. */
export function StoresPage() {
  const { slug } = useAccount();
  const stores = useStores();
  return (
    <Waiting of={stores}>
      {({ sentence, lines, cost, until }) => {
        const short = lines.filter((x) => x.short);
        return (
          <Page
            sentence={lines.length ? sentence : "The shelf is empty."}
            act={short.length > 0 && <Button onPress={() => window.print()}>Print it</Button>}
            margin={
              <Section title="What is counted">
                <Hint>
                  {until} What is past its date does not count as left. What a round used comes off its lot; a
                  count on the product’s page puts it right.
                </Hint>
              </Section>
            }
          >
            {lines.length === 0 && (
              <Empty>
                No lot is kept yet. Open a product and note what stands on the shelf: from then on, what
                rounds use comes off it.
              </Empty>
            )}
            {short.length > 0 && (
              <Section title="To buy">
                <Ledger>
                  <thead>
                    <tr>
                      <th>Product</th>
                      <th className="figure">Short by</th>
                      <th>Buy</th>
                    </tr>
                  </thead>
                  <tbody>
                    {short.map((x) => (
                      <tr key={x.product_id}>
                        <td>
                          <Link to={`/a/${slug}/shelf/${x.product_id}`}>{x.product}</Link>
                        </td>
                        <td className="figure">{x.short}</td>
                        <td>
                          {x.buy || "–"}
                          {x.note && <div className="soft">{x.note}</div>}
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </Ledger>
                {cost && (
                  <div style={{ marginTop: 10 }}>
                    <Facts of={[["In all", cost]]} />
                  </div>
                )}
              </Section>
            )}
            <ToLookAt lines={lines} />
            {lines.length > 0 && (
              <Section title="On the shelf">
                <Ledger>
                  <thead>
                    <tr>
                      <th>Product</th>
                      <th className="figure">Left</th>
                      <th className="figure">Planned</th>
                      <th className="figure">As last year</th>
                      <th className="wide">Here since</th>
                    </tr>
                  </thead>
                  <tbody>
                    {lines.map((x) => (
                      <tr key={x.product_id}>
                        <td>
                          <Link to={`/a/${slug}/shelf/${x.product_id}`}>{x.product}</Link>
                          <div className="soft">{x.kind}</div>
                        </td>
                        <td className="figure">{x.left || "Not kept"}</td>
                        <td className="figure">{x.planned || "–"}</td>
                        <td className="figure">{x.as_last || "–"}</td>
                        <td className="wide">
                          {x.jugs.map((j) => (
                            <div key={j.id} className="soft">
                              {`${j.number}: ${j.since || "not noted"}`}
                            </div>
                          ))}
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </Ledger>
              </Section>
            )}
          </Page>
        );
      }}
    </Waiting>
  );
}
