import type { Schemas } from "../../api/client";
import { useAreas, useGroundOptions, useMachines, useProductOptions, useProducts } from "../../api/hooks";
import { useKitOptions } from "../../api/kit";
import { useAccount, useMay } from "../../app/session";
import { ButtonLink } from "../../parts/Button";
import { Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Waiting } from "../../parts/Waiting";
import { GroundStep } from "./GroundStep";
import { MachineStep } from "./MachineStep";
import { ProductStep } from "./ProductStep";
import { Step } from "./Step";

/** What is there already, in a line. */
const named = (of: { name: string }[], first: string) =>
  of.length > 1 ? `${first}, and ${of.length - 1} more` : first;

/** The machine that puts the first product down, where there is one. */
function able(machines: Schemas["MachineOut"][], product: Schemas["ProductOut"] | undefined) {
  return machines.find((m) => product && m.takes.includes(product.id)) ?? machines[0];
}

const sentences = {
  ground: "Three things, then the first dose: your ground, a product, a machine.",
  product: "Two things, then the first dose: a product and a machine.",
  machine: "One thing, then the first dose: the machine that puts it down.",
};

/** The first hour: a ground, a product and a machine, one after the other, and the first dose. */
export function Start() {
  const account = useAccount();
  const may = useMay("manager");
  const ground = useGroundOptions();
  const shelf = useProductOptions();
  const kit = useKitOptions();
  const areas = useAreas();
  const products = useProducts();
  const machines = useMachines();
  return (
    <Waiting of={areas}>
      {({ areas: lands }) => (
        <Waiting of={products}>
          {(cards) => (
            <Waiting of={machines}>
              {(tools) => {
                const [land] = lands;
                const [card] = cards;
                const tool = able(tools, card);
                const now = !land ? "ground" : !card ? "product" : !tool ? "machine" : null;
                const state = (step: string, there: unknown) =>
                  there ? "done" : step === now ? "now" : "later";
                const job = land && card ? `area=${land.id}&product=${card.id}` : "";
                return (
                  <Page
                    sentence={now ? sentences[now] : "Everything is in place for the first dose."}
                    act={
                      !now && (
                        <ButtonLink look="main" to={`/a/${account.slug}/reckon?${job}&machine=${tool!.id}`}>
                          Reckon the first dose
                        </ButtonLink>
                      )
                    }
                  >
                    {!may && <Notice tone="note">A manager of the account sets this up.</Notice>}
                    <ol style={{ maxWidth: 960 }}>
                      <Step
                        number={1}
                        title="Your ground"
                        state={state("ground", land)}
                        said={land && named(lands, `${land.name}, ${land.size.text}`)}
                      >
                        {may && <Waiting of={ground}>{(o) => <GroundStep options={o} />}</Waiting>}
                      </Step>
                      <Step
                        number={2}
                        title="A product"
                        state={state("product", card)}
                        said={card && named(cards, `${card.name}, ${card.rates[0]?.understood ?? ""}`)}
                      >
                        {may && <Waiting of={shelf}>{(o) => <ProductStep options={o} />}</Waiting>}
                      </Step>
                      <Step
                        number={3}
                        title="A machine"
                        state={state("machine", tool)}
                        said={tool && named(tools, `${tool.name}, ${tool.state}`)}
                      >
                        {may && (
                          <Waiting of={kit}>{(o) => <MachineStep options={o} products={cards} />}</Waiting>
                        )}
                      </Step>
                    </ol>
                  </Page>
                );
              }}
            </Waiting>
          )}
        </Waiting>
      )}
    </Waiting>
  );
}
