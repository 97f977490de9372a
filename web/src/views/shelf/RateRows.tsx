import { useState } from "react";
import styled from "styled-components";
import { ApiError, type Schemas } from "../../api/client";
import { usePhrase } from "../../api/hooks";
import { t } from "../../app/theme";
import { useSettled } from "../../app/useSettled";
import { useAccount } from "../../app/session";
import { Button } from "../../parts/Button";
import { FaultText, Hint } from "../../parts/Field";
import { Line } from "../../parts/Line";
import { ManyField } from "../../parts/ManyField";
import { PickField } from "../../parts/PickField";
import { Fields, Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { heightUnits } from "../../parts/units";
import { blankRate, type TypedRate } from "./typed";

const Ground = styled.div`
  border-left: 1px solid ${t.hair};
  padding: 2px 0 2px 16px;
  margin-top: 8px;
`;

const Meant = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  align-items: center;
`;

type Options = Schemas["ShelfOptionsOut"];

/** What a row says beside its rate, as it is typed; empty where it says nothing more. */
function summary(r: TypedRate, options: Options): string {
  const names = (keys: string[], from: { key: string; text: string }[]) =>
    keys.map((k) => from.find((o) => o.key === k)?.text ?? k).join(", ");
  const span = (low: string, high: string, unit: string) =>
    low && high
      ? `${low} to ${high} ${unit}`
      : low
        ? `from ${low} ${unit}`
        : high
          ? `up to ${high} ${unit}`
          : "";
  const [first, last] = [r.interval_low, r.interval_high];
  const days =
    first && last && first !== last
      ? `every ${first} to ${last} days`
      : first && last
        ? `every ${first} days`
        : first
          ? `${first} days apart or more`
          : last
            ? `within ${last} days`
            : "";
  return [
    r.target,
    r.intent === "any" ? "" : names([r.intent], options.intents).toLowerCase(),
    r.grasses.length > 3 ? `${r.grasses.length} grasses` : names(r.grasses, options.grasses).toLowerCase(),
    names(r.uses, options.uses).toLowerCase(),
    span(r.height_low, r.height_high, r.height_unit),
    days,
  ]
    .filter(Boolean)
    .join("; ");
}

function RateRow({
  i,
  row,
  set,
  leave,
  options,
  formulation,
}: {
  i: number;
  row: TypedRate;
  set: (row: TypedRate) => void;
  leave?: () => void;
  options: Options;
  formulation: string;
}) {
  const account = useAccount();
  const phrase = useSettled(row.phrase, 200);
  const { data, error } = usePhrase(phrase, formulation);
  const asked = error instanceof ApiError ? error.fields[0] : undefined;
  const pick = (text: string) => set({ ...row, phrase: text });
  const [open, setOpen] = useState(false);
  const change = (part: Partial<TypedRate>) => set({ ...row, ...part });
  const said = summary(row, options);
  return (
    <div>
      <Line $columns="minmax(0, 3fr) minmax(0, 2fr)">
        <div>
          <TextField
            needed={i === 0}
            label="Rate, as printed"
            name={`rates.${i}.phrase`}
            value={row.phrase}
            onPick={pick}
            onChange={pick}
            input={{ placeholder: "0.9 to 1.6 fl oz per 1,000 sq ft" }}
          />
          {row.phrase.trim() && data && !error && (
            <Hint>
              {`Understood: ${data.understood}`}
              {data.also.length > 0 && `; that is ${data.also.slice(0, 2).join(" or ")}`}
              {data.told.length > 0 &&
                `. It also says “${data.told.join("”, “")}”: put that among the rules or the interval.`}
            </Hint>
          )}
          {row.phrase.trim() && phrase === row.phrase && asked && <FaultText fault={asked} onPick={pick} />}
        </div>
        <TextField
          label="For what"
          name={`rates.${i}.use`}
          value={row.use}
          onChange={(use) => change({ use })}
          input={{ placeholder: "as the label heads it" }}
        />
        {leave ? (
          <Button onPress={leave} aria-label={`Remove rate ${i + 1}`}>
            Remove
          </Button>
        ) : (
          <span />
        )}
      </Line>
      <Meant>
        {!open && said && <Hint as="span">{said}</Hint>}
        <Button look="quiet" onPress={() => setOpen(!open)} aria-expanded={open}>
          {open ? "Fold it away" : said ? "Change what it is for" : "Which target, grass, height, interval?"}
        </Button>
      </Meant>
      {open && (
        <Ground>
          <Fields $columns={4}>
            <PickField
              label="Target"
              name={`rates.${i}.target`}
              value={options.targets.find((x) => x.key === row.target || x.text === row.target)?.key ?? ""}
              options={[
                { key: "", text: "None" },
                ...options.targets.map((x) => ({ key: x.key, text: x.text, note: x.kind })),
              ]}
              onChange={(key) => change({ target: options.targets.find((x) => x.key === key)?.text ?? "" })}
            />
            <PickField
              label="Meant as"
              name={`rates.${i}.intent`}
              value={row.intent}
              options={options.intents}
              onChange={(intent) => change({ intent })}
            />
            <ManyField
              label="Grasses listed"
              name={`rates.${i}.grasses`}
              values={row.grasses}
              options={options.grasses}
              onChange={(grasses) => change({ grasses })}
              none="Any"
            />
            <ManyField
              label="Ground listed"
              name={`rates.${i}.uses`}
              values={row.uses}
              options={options.uses}
              onChange={(uses) => change({ uses })}
              none="Any"
            />
            <TextField
              label="Mown from"
              name={`rates.${i}.height_low`}
              value={row.height_low}
              onChange={(height_low) => change({ height_low })}
              input={{ inputMode: "decimal" }}
            />
            <TextField
              label="Mown up to"
              name={`rates.${i}.height_high`}
              value={row.height_high}
              onChange={(height_high) => change({ height_high })}
              input={{ inputMode: "decimal" }}
            />
            <PickField
              label="Heights in"
              name={`rates.${i}.height_unit`}
              value={row.height_unit}
              options={heightUnits(account.units)}
              onChange={(height_unit) => change({ height_unit })}
            />
            <Fields>
              <TextField
                label="Days, from"
                name={`rates.${i}.interval_low`}
                value={row.interval_low}
                onChange={(interval_low) => change({ interval_low })}
                input={{ inputMode: "numeric" }}
              />
              <TextField
                label="to"
                name={`rates.${i}.interval_high`}
                value={row.interval_high}
                onChange={(interval_high) => change({ interval_high })}
                input={{ inputMode: "numeric" }}
              />
            </Fields>
          </Fields>
        </Ground>
      )}
    </div>
  );
}

/** The label's rates, each typed as printed and read back at once, with the ground each is for. */
export function RateRows({
  rows,
  options,
  formulation,
  onChange,
}: {
  rows: TypedRate[];
  options: Options;
  formulation: string;
  onChange: (rows: TypedRate[]) => void;
}) {
  return (
    <Stack $gap={16}>
      {rows.map((row, i) => (
        <RateRow
          key={row.id ?? `new-${i}`}
          i={i}
          row={row}
          options={options}
          formulation={formulation}
          set={(next) => onChange(rows.map((r, j) => (j === i ? next : r)))}
          leave={rows.length > 1 ? () => onChange(rows.filter((_, j) => j !== i)) : undefined}
        />
      ))}
      <div>
        <Button
          onPress={() => {
            const last = rows.at(-1) ?? blankRate;
            onChange([
              ...rows,
              { ...blankRate, grasses: last.grasses, uses: last.uses, height_unit: last.height_unit },
            ]);
          }}
        >
          Another rate
        </Button>
      </div>
    </Stack>
  );
}
