import styled from "styled-components";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { PickField } from "../../parts/PickField";
import { Bar, Fields } from "../../parts/Section";
import { StopWatch } from "../../parts/StopWatch";
import { TextField } from "../../parts/TextField";
import type { Bench, Typed } from "./benches";

const Run = styled.div<{ $out: boolean; $columns: string }>`
  display: grid;
  grid-template-columns: ${({ $columns }) => $columns};
  gap: 8px 12px;
  align-items: start;
  opacity: ${({ $out }) => ($out ? 0.5 : 1)};
  margin-top: 10px;
  > span,
  > div:has(> button),
  > button {
    margin-top: 24px;
  }
  > span {
    padding-top: 8px;
    color: ${t.soft};
  }
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    > span {
      grid-column: 1 / -1;
      margin-top: 0;
    }
    > div:has(> button),
    > button {
      margin-top: 0;
    }
  }
`;

interface Props {
  bench: Bench;
  typed: Typed;
  change: (part: Partial<Typed>) => void;
}

const put = (list: string[], i: number, v: string) =>
  Array.from({ length: Math.max(list.length, i + 1) }, (_, j) => (j === i ? v : (list[j] ?? "")));

/** The runs of a bench: each typed or timed, left out, or added to. */
export function BenchRuns({ bench, typed, change }: Props) {
  const account = useAccount();
  const runs = bench.runs!;
  const unit = runs.units && (
    <PickField
      label="Measured in"
      name="unit"
      value={typed.unit}
      options={runs.units(account.units)}
      onChange={(key) => change({ unit: key })}
    />
  );
  if (runs.many)
    return (
      <Fields $columns={2} style={{ marginTop: 16 }}>
        <TextField
          label={runs.label}
          name="runs"
          lines
          value={typed.runs[0]!}
          onChange={(v) => change({ runs: [v] })}
          hint={runs.many}
        />
        {unit}
      </Fields>
    );
  const symbol = runs.units?.(account.units).find((u) => u.key === typed.unit)?.text ?? "";
  const columns = [
    "56px",
    ...(runs.units ? ["minmax(0, 1fr)"] : []),
    ...(runs.clock ? ["minmax(0, 1fr)", "max-content"] : []),
    "max-content",
  ].join(" ");
  return (
    <div style={{ marginTop: 16 }}>
      {unit && <Fields $columns={3}>{unit}</Fields>}
      {typed.runs.map((value, i) => {
        const out = typed.out.includes(i);
        return (
          <Run key={i} $out={out} $columns={columns} role="group" aria-label={`Run ${i + 1}`}>
            <span>{`Run ${i + 1}`}</span>
            {runs.units && (
              <TextField
                label={`${runs.label} in run ${i + 1}, ${symbol}`}
                name={`runs.${i}`}
                value={value}
                onChange={(v) => change({ runs: put(typed.runs, i, v) })}
                input={{ inputMode: "decimal", disabled: out }}
              />
            )}
            {runs.clock && (
              <>
                <TextField
                  label={`${runs.units ? "Time of" : `${runs.label}, in`} run ${i + 1}, s`}
                  name={`seconds.${i}`}
                  value={typed.seconds[i] ?? ""}
                  onChange={(v) => change({ seconds: put(typed.seconds, i, v) })}
                  input={{ inputMode: "decimal", disabled: out }}
                />
                <StopWatch
                  of={`run ${i + 1}`}
                  onStop={(s) => change({ seconds: put(typed.seconds, i, `${s}`) })}
                />
              </>
            )}
            <Button
              look="quiet"
              onPress={() => change({ out: out ? typed.out.filter((n) => n !== i) : [...typed.out, i] })}
            >
              {out ? "Use it" : "Do not use"}
            </Button>
          </Run>
        );
      })}
      <Bar style={{ marginTop: 12 }}>
        <Button onPress={() => change({ runs: [...typed.runs, ""], seconds: [...typed.seconds, ""] })}>
          Another run
        </Button>
      </Bar>
    </div>
  );
}
