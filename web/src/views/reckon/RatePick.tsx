import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { Findings } from "../../parts/Findings";
import { Hint } from "../../parts/Field";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { RateRule } from "../../parts/RateRule";
import { Verdict } from "../../parts/Verdict";
import type { PickedDose, Product, Row } from "./state";

const Box = styled.div`
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
const Ends = styled.div`
  display: flex;
  padding-top: 22px;
  margin-left: -12px;
  ${t.phone} {
    padding-top: 0;
    margin-left: -5px;
  }
`;
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: baseline;
  justify-content: space-between;
  h3 {
    font-size: ${t.s15};
  }
`;

interface Answered {
  name: string;
  dose: Schemas["DoseOut"] | null;
  /** Notes that stand on another area of the job already. */
  said: string[];
}

interface Props {
  /** The dose's name in a fault. */
  field: string;
  dose: PickedDose;
  product: Product;
  label: string;
  heading: string;
  fits: Schemas["RowFitOut"][] | undefined;
  /** What was reckoned of it, an area each. */
  answers: Answered[];
  change: (dose: Partial<PickedDose>) => void;
}

/** The rate of one product on one area or on all: a row of the label, a place on its rule, a number, and what the rules say. */
export function RatePick({ field, dose, product, label, heading, fits, answers, change }: Props) {
  const row = product.rates.find((r) => r.id === dose.row);
  if (!row) return null;
  const fit = (id: number) => fits?.find((f) => f.row_id === id);
  const first = answers[0]?.dose;
  return (
    <Box>
      {heading && (
        <Head>
          <h3>{heading}</h3>
          {first && <Hint as="span">{`${first.amount} on it`}</Hint>}
        </Head>
      )}
      <Fields>
        <PickField
          label="Rate of the label"
          name={`${field}.row_id`}
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
          label={label}
          name={`${field}.rate`}
          value={dose.rate}
          units={row.units}
          onChange={(rate) => change({ rate })}
          hint={fit(row.id)?.why}
        />
        <Ends>
          {ends(row).map(([word, at]) => (
            <Button
              key={word}
              look="quiet"
              aria-label={`${word} of the label`}
              onPress={() => change({ rate: { value: at, unit: row.high.unit } })}
            >
              {word}
            </Button>
          ))}
        </Ends>
      </Fields>
      <RateRule
        rule={first?.rule ?? row.rule}
        label={label}
        text={`${dose.rate.value} ${(first?.rule ?? row.rule).symbol}`}
        onChange={(value) => change({ rate: { value: `${value}`, unit: row.high.unit } })}
      />
      {first && <Verdict judgement={first.judgement} />}
      {answers.map(
        (a) =>
          a.dose && (
            <Findings
              key={a.name}
              of={a.dose.findings.filter((f) => !a.said.includes(f.sentence))}
              onPick={(text) => change({ rate: { value: text, unit: row.high.unit } })}
            />
          ),
      )}
    </Box>
  );
}

/** The label's low, middle and high as they are typed; nothing where it prints one number. */
function ends(row: Row): [string, string][] {
  if (!row.low || row.low.value === row.high.value) return [];
  const [low, high] = [row.low.value, row.high.value];
  const middle = Number(((low + high) / 2).toPrecision(6));
  return [
    ["Low", row.low.exact],
    ["Middle", `${middle}`],
    ["High", row.high.exact],
  ];
}
