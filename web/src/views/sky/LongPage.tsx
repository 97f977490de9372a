import { lazy, Suspense, useState } from "react";
import { useLong, type LongField } from "../../api/sky";
import { useAccount } from "../../app/session";
import { useSitePick } from "../../app/site";
import { Empty } from "../../parts/Empty";
import { Hint } from "../../parts/Field";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { skyParts } from "./skyParts";

const LongChart = lazy(async () => ({ default: (await import("../../parts/LongChart")).LongChart }));

const fields: { key: LongField; text: string }[] = [
  { key: "air", text: "Air" },
  { key: "humidity", text: "Humidity" },
  { key: "rain", text: "Rain" },
  { key: "wind", text: "Wind" },
  { key: "soil", text: "Soil, measured" },
];

/** All that is known of one field, hour by hour. */
export function LongPage() {
  const account = useAccount();
  const [field, setField] = useState<LongField>("air");
  const place = useSitePick();
  const long = useLong(field, place.site.id);
  return (
    <Page
      sentence={
        long.data?.values.length
          ? `${long.data.values.length.toLocaleString("en")} hours of ${long.data.name.toLowerCase()}, one by one.`
          : "All the hours there are."
      }
    >
      <SubRule label="Parts of the sky" parts={skyParts(account.slug)} />
      {place.field}
      <div style={{ maxWidth: 260, marginBottom: 18 }}>
        <PickField
          label="What"
          name="field"
          value={field}
          options={fields}
          onChange={(key) => setField(key as LongField)}
        />
      </div>
      <Waiting of={long}>
        {(data) =>
          data.values.length ? (
            <Section title={`${data.name}, ${data.unit}`}>
              <Suspense fallback={<p>Drawing …</p>}>
                <LongChart long={data} />
              </Suspense>
              <Hint>
                Drag over a span to look closer; press twice to see all of it again. Gaps are left open.
              </Hint>
            </Section>
          ) : (
            <Empty>No hour is in yet.</Empty>
          )
        }
      </Waiting>
    </Page>
  );
}
