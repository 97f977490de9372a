import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useExportPlan } from "../../api/passes";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { Bar, Fields, Section } from "../../parts/Section";
import { TextField } from "../../parts/TextField";

/** The plan as a GeoJSON file; ground that was taped is asked where it lies. */
export function ExportSection({ asked, has }: { asked: Schemas["PlanIn"]; has: boolean }) {
  const [at, setAt] = useState({ latitude: "", longitude: "", bearing: "0" });
  const write = useExportPlan();
  const submit = () =>
    write.mutate(
      { plan: asked, ...at },
      { onSuccess: (made) => download(JSON.stringify(made, null, 1), "passes.geojson") },
    );
  return (
    <Section title="As a file">
      <Form label="As a file" error={write.error} onSubmit={submit}>
        {!has && (
          <>
            <Hint style={{ marginBottom: 8 }}>
              The plan was taped: say where its lower left corner lies, and where its up points, clockwise
              from north.
            </Hint>
            <Fields $columns={3}>
              <TextField
                label="Latitude"
                name="latitude"
                value={at.latitude}
                onChange={(latitude) => setAt({ ...at, latitude })}
                input={{ inputMode: "decimal" }}
              />
              <TextField
                label="Longitude"
                name="longitude"
                value={at.longitude}
                onChange={(longitude) => setAt({ ...at, longitude })}
                input={{ inputMode: "decimal" }}
              />
              <TextField
                label="Its up points to, degrees"
                name="bearing"
                value={at.bearing}
                onChange={(bearing) => setAt({ ...at, bearing })}
                input={{ inputMode: "decimal" }}
              />
            </Fields>
          </>
        )}
        <Fault error={write.error} besides={["latitude", "longitude", "bearing"]} />
        <Bar style={{ marginTop: 12 }}>
          <Button type="submit" isDisabled={write.isPending}>
            Write GeoJSON
          </Button>
        </Bar>
      </Form>
    </Section>
  );
}

/** Hand a text to the browser as a file. */
function download(text: string, name: string) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([text], { type: "application/geo+json" }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
