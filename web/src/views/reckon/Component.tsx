import { useEffect, useMemo, useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useRowFits } from "../../api/hooks";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Fault } from "../../parts/Notice";
import { Fields } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { nameOf } from "./Grounds";
import { ProductPick } from "./ProductPick";
import { RatePick } from "./RatePick";
import { matched, removed, withComponent, withDose, type Picked, type Product } from "./state";

const Box = styled.section`
  margin-top: 16px;
  padding-top: 14px;
  border-top: 1px solid ${t.rule};
  display: grid;
  gap: 14px;
`;
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: baseline;
  h2 {
    font-size: ${t.s18};
  }
  p {
    flex: 1;
    color: ${t.soft};
  }
`;

interface Props {
  place: number;
  picked: Picked;
  change: (part: Partial<Picked> | ((now: Picked) => Partial<Picked>)) => void;
  products: Product[];
  areas: Schemas["AreaOut"][];
  targets: Schemas["TargetOut"][];
  answer: Schemas["JobOut"] | undefined;
}

/** One product of the mix: what it is for, and its rate on every area, one for all unless they are set apart. */
export function Component({ place, picked, change, products, areas, targets, answer }: Props) {
  const component = picked.mix[place]!;
  const product = products.find((p) => p.id === component.product);
  const several = picked.mix.length > 1;
  const grounds = useMemo(() => [...new Set(picked.parts.map((p) => p.area))], [picked.parts]);
  const fits = useRowFits(component.product, grounds, component.target);
  const known =
    fits.data?.product_id === component.product && fits.data?.target === component.target
      ? fits.data.fits
      : undefined;
  useEffect(() => {
    if (known && !component.taste && matched(picked.parts, place, known))
      change((now) => {
        const parts = matched(now.parts, place, known);
        return parts ? { parts } : {};
      });
  }, [known, picked.parts, place, component.taste, change]);
  const [apart, setApart] = useState(false);

  const doses = picked.parts.map((p) => p.doses[place]);
  const first = doses[0];
  const alike = doses.every(
    (d) =>
      d &&
      first &&
      d.row === first.row &&
      d.rate.value === first.rate.value &&
      d.rate.unit === first.rate.unit,
  );
  const groups = alike && !apart ? [picked.parts.map((_, i) => i)] : picked.parts.map((_, i) => [i]);
  const told = answer?.mix[place];
  const said = (at: number) =>
    (answer?.parts ?? []).slice(0, at).flatMap((p) => p.doses[place]?.findings.map((f) => f.sentence) ?? []);
  return (
    <Box aria-label={several ? `In the mix: ${product?.name ?? `product ${place + 1}`}` : "Rate"}>
      {several && (
        <Head>
          <h2>{`${place + 1}. ${product?.name ?? "Another product"}`}</h2>
          <p>
            {told &&
              [told.role, told.amount ? `${told.amount.text} in all` : "to taste", told.per_volume]
                .filter(Boolean)
                .join(", ")}
          </p>
          <Button
            look="quiet"
            onPress={() => change((now) => removed(now, place))}
            aria-label={`Remove: ${product?.name ?? `product ${place + 1}`}`}
          >
            Remove
          </Button>
        </Head>
      )}
      {place > 0 && (
        <Fields $columns={2}>
          <ProductPick place={place} picked={picked} change={change} products={products} targets={targets} />
        </Fields>
      )}
      {product?.kind === "colourant" && several && (
        <Switch
          value={component.taste}
          onChange={(taste) => change((now) => withComponent(now, place, { taste }))}
        >
          To taste: until the spray can be seen
        </Switch>
      )}
      {product &&
        !component.taste &&
        groups.map((at) => {
          const part = picked.parts[at[0]!];
          const area = areas.find((a) => a.id === part?.area);
          const dose = part?.doses[place];
          if (!part || !area || !dose) return null;
          const where = nameOf(part, area);
          const together = at.length > 1;
          const shown = answer && answer.parts.length === picked.parts.length ? answer : undefined;
          return (
            <RatePick
              key={together ? "all" : `${part.area} ${part.zone}`}
              field={`parts.${at[0]}.doses.${place}`}
              dose={dose}
              product={product}
              label={[
                several ? `Rate of ${product.name}` : "Rate to put down",
                picked.parts.length > 1 && !together ? ` on ${where}` : "",
              ].join("")}
              heading={picked.parts.length > 1 && !together ? where : ""}
              fits={known?.[part.area]}
              answers={at.map((i) => ({
                name: shown?.parts[i]?.name ?? "",
                dose: shown?.parts[i]?.doses[place] ?? null,
                said: said(i),
              }))}
              change={(next) => change((now) => withDose(now, place, at, next))}
            />
          );
        })}
      {fits.error && <Fault error={fits.error} />}
      {picked.parts.length > 1 && !component.taste && product && alike && (
        <div>
          <Button look="quiet" onPress={() => setApart(!apart)}>
            {apart ? "One rate for all areas" : "A rate for each area"}
          </Button>
        </div>
      )}
      {product && component.taste && (
        <Hint>It is stirred in last and has no amount; what was used can be noted when the job is done.</Hint>
      )}
    </Box>
  );
}
