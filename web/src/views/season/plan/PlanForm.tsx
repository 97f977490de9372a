import { WEEKDAYS } from "../../../parts/days";
import type { PlanAsk } from "../../../api/plans";
import type { Schemas } from "../../../api/client";
import { useAreas } from "../../../api/hooks";
import { Button } from "../../../parts/Button";
import { DateField } from "../../../parts/DateField";
import { Form } from "../../../parts/Form";
import { ManyField } from "../../../parts/ManyField";
import { Fault } from "../../../parts/Notice";
import { PickField } from "../../../parts/PickField";
import { Bar, Fields } from "../../../parts/Section";
import { Switch } from "../../../parts/Switch";
import { TextField } from "../../../parts/TextField";
import { areaGroups, areaOptions } from "../../reckon/state";

/** What is asked of a plan, as it is typed. */
export interface PlanDraft {
  year: number;
  areas: string[];
  wish: "cost" | "product";
  protect: boolean;
  feed: boolean;
  riskDays: string;
  weekdays: string[];
  offFrom: string;
  offTo: string;
  hours: string;
  outing: string;
  labour: string;
  buy: boolean;
  release: boolean;
}

export const begin = (options: Schemas["PlanOptionsOut"]): PlanDraft => ({
  year: options.years[0]!,
  areas: [],
  wish: "cost",
  protect: true,
  feed: true,
  riskDays: "3",
  weekdays: [`${options.weekday}`],
  offFrom: "",
  offTo: "",
  hours: "",
  outing: "20",
  labour: "25",
  buy: true,
  release: false,
});

export const asked = (v: PlanDraft): PlanAsk => ({
  year: v.year,
  area_ids: v.areas.map(Number),
  wish: v.wish,
  protect: v.protect,
  feed: v.feed,
  risk_days: v.riskDays,
  weekdays: v.weekdays.map(Number),
  off: v.offFrom || v.offTo ? [{ begin: v.offFrom || v.offTo, end: v.offTo || v.offFrom }] : [],
  hours: v.hours,
  outing: v.outing,
  labour: v.labour,
  buy: v.buy,
  release: v.release,
});

interface Props {
  value: PlanDraft;
  onChange: (part: Partial<PlanDraft>) => void;
  years: number[];
  currency: string;
  error: Error | null;
  running: boolean;
  onSubmit: () => void;
}

/** What a plan is asked for: the year, the ground, the wish, and when and how long people go out. */
export function PlanForm({ value: v, onChange, years, currency, error, running, onSubmit }: Props) {
  const areas = (useAreas().data?.areas ?? []).filter((a) => a.parent_id === null);
  return (
    <Form label="A plan" error={error} onSubmit={onSubmit}>
      <Fields $columns={3}>
        <PickField
          label="Year"
          name="year"
          value={`${v.year}`}
          options={years.map((y) => ({ key: `${y}`, text: `${y}` }))}
          onChange={(year) => onChange({ year: Number(year) })}
        />
        <ManyField
          label="Ground"
          name="area_ids"
          values={v.areas}
          options={areaOptions(areas)}
          groups={areaGroups(areas)}
          onChange={(ground) => onChange({ areas: ground })}
          none="All of it"
        />
        <PickField
          label="At the least"
          name="wish"
          value={v.wish}
          options={[
            { key: "cost", text: "Cost", note: "Product, work and going out" },
            { key: "product", text: "Product", note: "What acts, by weight" },
          ]}
          onChange={(wish) => onChange({ wish: wish as PlanDraft["wish"] })}
        />
        <ManyField
          label="Days to go out on"
          name="weekdays"
          values={v.weekdays}
          options={WEEKDAYS}
          onChange={(weekdays) => onChange({ weekdays })}
          none="None yet"
        />
        <TextField
          label="Hours out on such a day"
          name="hours"
          value={v.hours}
          onChange={(hours) => onChange({ hours })}
          hint="Empty: as long as it takes"
        />
        <TextField
          label="Worth it from"
          name="risk_days"
          value={v.riskDays}
          onChange={(riskDays) => onChange({ riskDays })}
          hint="Risk days that an application covers"
        />
        {v.wish === "cost" && (
          <>
            <TextField
              label={`Going out, ${currency}`}
              name="outing"
              value={v.outing}
              onChange={(outing) => onChange({ outing })}
              hint="Each time, with each machine"
            />
            <TextField
              label={`An hour’s work, ${currency}`}
              name="labour"
              value={v.labour}
              onChange={(labour) => onChange({ labour })}
            />
          </>
        )}
        <Fields $columns={2}>
          <DateField
            label="Nobody there from"
            name="off.0.begin"
            value={v.offFrom}
            onChange={(offFrom) => onChange({ offFrom })}
          />
          <DateField label="To" name="off.0.end" value={v.offTo} onChange={(offTo) => onChange({ offTo })} />
        </Fields>
      </Fields>
      <Fields $columns={2} style={{ marginTop: 10 }}>
        <Switch value={v.protect} onChange={(protect) => onChange({ protect })}>
          Protect against what each area is watched for
        </Switch>
        <Switch value={v.feed} onChange={(feed) => onChange({ feed })}>
          Feed as the grass grows
        </Switch>
        <Switch value={v.buy} onChange={(buy) => onChange({ buy })}>
          More than the shelf holds may be bought
        </Switch>
        <Switch value={v.release} onChange={(release) => onChange({ release })}>
          Plan anew what was moved by hand, too
        </Switch>
      </Fields>
      <Fault
        error={error}
        besides={["year", "weekdays", "hours", "risk_days", "outing", "labour", "off.0.begin", "off.0.end"]}
      />
      <Bar style={{ marginTop: 14 }}>
        <Button type="submit" look="main" isDisabled={running}>
          Make the plan
        </Button>
      </Bar>
    </Form>
  );
}
