import { useState } from "react";
import { useAddScouting, useLooks, useStrikeScouting } from "../../../api/scouting";
import type { Schemas } from "../../../api/client";
import { useArea } from "../../../api/hooks";
import { useAccount } from "../../../app/session";
import { say } from "../../../app/toast";
import { AreaPlan, PlanBeside } from "../../../parts/AreaPlan";
import { Button } from "../../../parts/Button";
import { DateField, todayHere } from "../../../parts/DateField";
import { Form } from "../../../parts/Form";
import { Hint } from "../../../parts/Field";
import { Fault } from "../../../parts/Notice";
import { PickField } from "../../../parts/PickField";
import { Bar, Fields } from "../../../parts/Section";
import { QuantityField } from "../../../parts/QuantityField";
import { lengthUnits } from "../../../parts/units";
import { TextField } from "../../../parts/TextField";

const FIELDS = [
  "kind",
  "what",
  "seen",
  "on",
  "severity",
  "score",
  "sure",
  "named_by",
  "spot_id",
  "across",
  "where",
  "note",
];

interface Props {
  area_id: number;
  spots?: Schemas["SpotOut"][];
  /** What it starts with; the keys of the targets to pick from, where not all of them are meant. */
  kind?: string;
  what?: string;
  only?: string[];
  onDone?: () => void;
}

/** Note what was seen on an area: what it is, how much of it, how sure, and who named it. */
export function ScoutForm({ area_id, spots = [], kind = "disease", what = "", only, onDone }: Props) {
  const looks = useLooks();
  const add = useAddScouting();
  const strike = useStrikeScouting();
  const blank = {
    kind,
    what,
    seen: "yes",
    severity: "",
    score: "",
    sure: "sure",
    named_by: "eye",
    spot: "",
    on: todayHere(),
    where: "",
    note: "",
  };
  const [v, setV] = useState(blank);
  const { units } = useAccount();
  const area = useArea(area_id);
  const [at, setAt] = useState<{ x: number; y: number } | null>(null);
  const [across, setAcross] = useState({ value: "", unit: units === "us" ? "ft" : "m" });
  const change = (part: Partial<typeof blank>) => setV((now) => ({ ...now, ...part }));
  const look = looks.data?.looks.find((x) => x.key === v.kind);
  const targets = (look?.targets ?? []).filter((x) => !only || only.includes(x.key));
  const unlike = targets.find((x) => x.key === v.what)?.unlike ?? [];
  const seen = v.seen === "yes";
  const body: Schemas["ScoutIn"] = {
    area_id,
    kind: v.kind,
    what: v.what,
    seen,
    severity: seen && look?.share ? v.severity : "",
    score: seen && look?.scale ? v.score : "",
    sure: v.sure,
    named_by: v.named_by,
    spot_id: v.spot ? Number(v.spot) : null,
    on: v.on,
    ...(seen && look?.share ? { ...at, across } : {}),
    where: v.where,
    note: v.note,
  };
  const keep = () =>
    add.mutate(body, {
      onSuccess: (made) => {
        setV({ ...v, severity: "", score: "", where: "", note: "" });
        say(`${made.area}: ${made.text}.`, () => strike.mutate({ id: made.id, why: "Taken back at once." }));
        onDone?.();
      },
    });
  const share = seen && look?.share;
  return (
    <Form label="A scout report" error={add.error} onSubmit={keep}>
      <Fields $columns={3}>
        {!only && (
          <PickField
            label="Looked for"
            name="kind"
            value={v.kind}
            options={(looks.data?.looks ?? []).map((x) => ({ key: x.key, text: x.name }))}
            onChange={(next) => change({ kind: next, what: "", severity: "", score: "" })}
          />
        )}
        {look && look.targets.length > 0 ? (
          <PickField
            label={only ? "Looked for" : "Which"}
            name="what"
            value={v.what || null}
            options={targets.map((x) => ({ key: x.key, text: x.text }))}
            onChange={(next) => change({ what: next })}
            placeholder="Pick one"
          />
        ) : (
          <TextField
            label="What it is"
            name="what"
            value={v.what}
            onChange={(next) => change({ what: next })}
            hint="Where the kind does not say it"
          />
        )}
        <PickField
          label="Was it there?"
          name="seen"
          value={v.seen}
          options={[
            { key: "yes", text: "Seen" },
            { key: "no", text: "Not seen", note: "clean turf tells as much about a model" },
          ]}
          onChange={(next) => change({ seen: next })}
        />
        <DateField label="On" name="on" value={v.on} onChange={(on) => change({ on })} />
        {share && (
          <TextField
            label="On how much of the turf, in %"
            name="severity"
            value={v.severity}
            onChange={(severity) => change({ severity })}
            input={{ inputMode: "decimal" }}
          />
        )}
        {seen && look?.scale && (
          <TextField
            label={
              look.scale.per
                ? `${look.scale.name} in 1 ${look.scale.per}`
                : `${look.scale.name}, ${look.scale.least} to ${look.scale.most}`
            }
            name="score"
            value={v.score}
            onChange={(score) => change({ score })}
            hint={look.scale.text}
            input={{ inputMode: "decimal" }}
          />
        )}
        {spots.length > 0 && (
          <PickField
            label="At a fixed spot"
            name="spot_id"
            value={v.spot}
            options={[
              { key: "", text: "None of them" },
              ...spots.map((s) => ({ key: String(s.id), text: s.name })),
            ]}
            onChange={(spot) => change({ spot })}
          />
        )}
        <TextField label="Where on it" name="where" value={v.where} onChange={(where) => change({ where })} />
        <PickField
          label="How sure"
          name="sure"
          value={v.sure}
          options={looks.data?.sure ?? []}
          onChange={(sure) => change({ sure })}
        />
        <PickField
          label="Named by"
          name="named_by"
          value={v.named_by}
          options={looks.data?.named_by ?? []}
          onChange={(named_by) => change({ named_by })}
        />
        <TextField label="Note" name="note" value={v.note} onChange={(note) => change({ note })} />
      </Fields>
      {unlike.length > 0 && (
        <Hint style={{ marginTop: 10 }}>
          Easily taken for{" "}
          {unlike.map((u, i) => (
            <span key={u.name}>
              {i > 0 && "; "}
              {u.name.toLowerCase()}: {u.text}
            </span>
          ))}
          .
        </Hint>
      )}
      {share && !only && area.data?.plan && (
        <PlanBeside>
          <div>
            <Hint>Or press the plan where it lies, and say how far it reaches.</Hint>
            <AreaPlan
              plan={{ ...area.data.plan, marks: [] }}
              us={units === "us"}
              label={at ? "The plan, with the patch on it" : "The plan, to mark the patch on"}
              patches={at ? [{ ...at, across: null }] : []}
              onPick={(x, y) => setAt({ x, y })}
            />
          </div>
          <div>
            <QuantityField
              label="Across"
              name="across"
              value={across}
              units={lengthUnits(units)}
              onChange={setAcross}
            />
            {at && (
              <Button look="quiet" onPress={() => setAt(null)}>
                Take the mark away
              </Button>
            )}
          </div>
        </PlanBeside>
      )}
      <Bar style={{ marginTop: 14 }}>
        <Button type="submit" look={onDone ? "main" : undefined} isDisabled={add.isPending}>
          Note what was found
        </Button>
        {onDone && (
          <Button look="quiet" onPress={onDone}>
            Leave it
          </Button>
        )}
      </Bar>
      <Fault error={add.error} besides={FIELDS} />
    </Form>
  );
}
