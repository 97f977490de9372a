import type { Schemas } from "../../api/client";
import { useAccount } from "../../app/session";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Fields, Section } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { temperatureUnits, windUnits } from "../../parts/units";
import type { Said } from "./state";

interface Props {
  answer: Schemas["JobOut"];
  said: Said;
  change: (part: Partial<Said>) => void;
}

const HOUR = "hour-";

/** What the label needs to know of the hour and nobody has told, or what somebody looked at: it goes before the weather. */
export function Looked({ answer, said, change }: Props) {
  const { units } = useAccount();
  const us = units === "us";
  const keys = answer.parts
    .flatMap((p) => p.doses.flatMap((d) => d?.findings ?? []))
    .filter((f) => f.key.startsWith(HOUR) && f.act !== "note")
    .map((f) => f.key);
  const asked = (name: keyof Said) => keys.includes(HOUR + name);
  const shows = (name: keyof Said) =>
    asked(name) ||
    (typeof said[name] === "object" ? (said[name] as { value: string }).value !== "" : !!said[name]);
  const names = ["leaf", "air", "wind", "soil", "dry_before", "dry_after"] as const;
  if (!names.some(shows)) return null;
  const degree = us ? "degF" : "degC";
  return (
    <Section title="Look, and say how it is">
      <Fields $columns={3}>
        {shows("leaf") && (
          <PickField
            label="The leaf"
            name="said.leaf"
            value={said.leaf}
            options={[
              { key: "", text: "As the weather tells" },
              { key: "dry", text: "It is dry, I looked" },
              { key: "wet", text: "It is wet, or I wet it myself" },
            ]}
            onChange={(leaf) => change({ leaf: leaf as Said["leaf"] })}
          />
        )}
        {(["air", "soil"] as const).filter(shows).map((name) => (
          <QuantityField
            key={name}
            label={name === "air" ? "Air now" : "Soil at 5 cm now"}
            name={`said.${name}`}
            value={said[name].unit ? said[name] : { value: "", unit: degree }}
            units={temperatureUnits(units)}
            onChange={(value) => change({ [name]: value })}
          />
        ))}
        {shows("wind") && (
          <QuantityField
            label="Wind now"
            name="said.wind"
            value={said.wind.unit ? said.wind : { value: "", unit: us ? "mph" : "mps" }}
            units={windUnits(units)}
            onChange={(wind) => change({ wind })}
          />
        )}
        {shows("dry_before") && (
          <Switch value={said.dry_before} onChange={(dry_before) => change({ dry_before })}>
            No rain fell in those hours
          </Switch>
        )}
        {shows("dry_after") && (
          <Switch value={said.dry_after} onChange={(dry_after) => change({ dry_after })}>
            No rain is coming in those hours
          </Switch>
        )}
      </Fields>
    </Section>
  );
}
