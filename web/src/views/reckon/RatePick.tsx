import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useProducts } from "../../api/hooks";
import { t } from "../../app/theme";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { RateRule } from "../../parts/RateRule";
import { Verdict } from "../../parts/Verdict";
import { start } from "./Picks";
import type { Picked, Row } from "./state";

const Box = styled.section`
  margin-top: 20px;
  padding-top: 16px;
  border-top: 1px solid ${t.hair};
  display: grid;
  gap: 14px;
`;
const Pair = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 12px 20px;
  align-items: start;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

interface Props {
  row: Row;
  rule: Schemas["RuleOut"] | undefined;
  judgement: Schemas["JudgementOut"] | undefined;
  picked: Picked;
  change: (part: Partial<Picked>) => void;
}

/** The rate: a row of the label, a place on its rule, a number. */
export function RatePick({ row, rule = row.rule, judgement, picked, change }: Props) {
  const { data = [] } = useProducts();
  const rows = data.find((p) => p.id === picked.product)?.rates ?? [];
  return (
    <Box aria-label="Rate">
      <Pair>
        <PickField
          label="Rate of the label"
          name="row_id"
          value={`${row.id}`}
          options={rows.map((r) => ({ key: `${r.id}`, text: r.phrase, note: r.use }))}
          onChange={(key) => {
            const next = rows.find((r) => `${r.id}` === key);
            change({ row: Number(key), rate: start(next) });
          }}
          hint={row.use}
        />
        <QuantityField
          label="Rate to put down"
          name="rate"
          value={picked.rate}
          units={row.units}
          onChange={(rate) => change({ rate })}
        />
      </Pair>
      <RateRule
        rule={rule}
        label="Rate to put down"
        text={`${picked.rate.value} ${rule.symbol}`}
        onChange={(value) => change({ rate: { value: `${value}`, unit: row.high.unit } })}
      />
      {judgement && <Verdict judgement={judgement} />}
    </Box>
  );
}
