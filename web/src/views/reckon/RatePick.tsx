import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { Findings } from "../../parts/Findings";
import { Hint } from "../../parts/Field";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { RateRule } from "../../parts/RateRule";
import { TextField } from "../../parts/TextField";
import { Verdict } from "../../parts/Verdict";
import type { PickedPart, Product } from "./state";

const Box = styled.section`
  margin-top: 20px;
  padding-top: 16px;
  border-top: 1px solid ${t.hair};
  display: grid;
  gap: 14px;
`;
const Fields = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 5fr) minmax(0, 2fr);
  gap: 12px 20px;
  align-items: start;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: baseline;
  justify-content: space-between;
  h3 {
    font-size: ${t.s18};
  }
`;
const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  margin-left: -5px;
`;

interface Props {
  index: number;
  part: PickedPart;
  area: Schemas["AreaOut"];
  product: Product;
  fits: Schemas["RowFitOut"][] | undefined;
  answer: Schemas["PartOut"] | undefined;
  /** Whether it is the only part of the job. */
  alone: boolean;
  /** Notes that stand on another area of the job already. */
  said: string[];
  change: (part: Partial<PickedPart>) => void;
  split: () => void;
  leave: () => void;
}

/** The rate on one area: a row of the label, a place on its rule, a number, and what the rules say of it. */
export function RatePick(props: Props) {
  const { index, part, area, product, fits, answer, alone, said, change, split, leave } = props;
  const row = product.rates.find((r) => r.id === part.row);
  if (!row) return null;
  const fit = (id: number) => fits?.find((f) => f.row_id === id);
  const where = `${area.name}${part.zone ? `, ${part.zone}` : ""}`;
  const name = `Rate to put down${alone ? "" : ` on ${where}`}`;
  const rule = answer?.rule ?? row.rule;
  return (
    <Box aria-label={alone ? "Rate" : `Rate on ${where}`}>
      {!alone && (
        <Head>
          <h3>{where}</h3>
          <Hint as="span">{answer ? `${answer.amount} on ${answer.treated.text}` : area.size.text}</Hint>
        </Head>
      )}
      <Fields>
        <PickField
          label="Rate of the label"
          name={`parts.${index}.row_id`}
          value={`${row.id}`}
          options={product.rates.map((r) => ({
            key: `${r.id}`,
            text: r.phrase,
            note: [r.use, r.ground, fit(r.id)?.fits === false && "not for this ground"]
              .filter(Boolean)
              .join("; "),
          }))}
          onChange={(key) => {
            const other = product.rates.find((r) => `${r.id}` === key)!;
            const start = fit(other.id)?.start ?? other.start;
            change({ row: other.id, rate: { value: start.exact, unit: start.unit } });
          }}
          hint={[row.use, row.ground].filter(Boolean).join("; ")}
        />
        <QuantityField
          label={name}
          name={`parts.${index}.rate`}
          value={part.rate}
          units={row.units}
          onChange={(rate) => change({ rate })}
          hint={fit(row.id)?.why}
        />
        <TextField
          label="Of it"
          name={`parts.${index}.share`}
          value={part.share}
          onChange={(share) => change({ share })}
          input={{ placeholder: "all" }}
          hint="1/4, 20 %"
        />
      </Fields>
      <RateRule
        rule={rule}
        label={name}
        text={`${part.rate.value} ${rule.symbol}`}
        onChange={(value) => change({ rate: { value: `${value}`, unit: row.high.unit } })}
      />
      {answer && <Verdict judgement={answer.judgement} />}
      {answer && (
        <Findings
          of={answer.findings.filter((f) => f.act !== "note" || !said.includes(f.sentence))}
          onPick={(text) => change({ rate: { value: text, unit: row.high.unit } })}
        />
      )}
      <Acts>
        {!part.zone && (
          <Button look="quiet" onPress={split}>
            Two rates: a core and what is around it
          </Button>
        )}
        {!alone && (
          <Button look="quiet" onPress={leave} aria-label={`Leave it out: ${where}`}>
            Leave it out
          </Button>
        )}
      </Acts>
    </Box>
  );
}
