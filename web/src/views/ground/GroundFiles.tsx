import { useNavigate } from "react-router";
import { api, read, send } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { ImportBench, type Taken } from "../../parts/ImportBench";
import { InArchive } from "../../parts/InArchive";
import { Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Section } from "../../parts/Section";

/** Areas in and out as GeoJSON. */
export function GroundFiles() {
  const account = useAccount();
  const may = useMay("manager");
  const navigate = useNavigate();
  const preview = useChange((path, file: Taken) =>
    read(
      api.POST("/api/accounts/{account}/areas/geojson/preview", {
        params: { path },
        body: { text: file.text },
      }),
    ),
  );
  const keep = useChange((path, file: Taken) =>
    read(send.POST("/api/accounts/{account}/areas/geojson", { params: { path }, body: { text: file.text } })),
  );
  return (
    <Page sentence="Ground in and out, as GeoJSON that any map takes.">
      <Section title="Take it out">
        <p>
          <a href={`/api/accounts/${account.slug}/areas/areas.geojson`} download>
            Export all areas as GeoJSON
          </a>
          . Areas that were measured by positions carry their outline.
        </p>
        <InArchive
          holds="Names, sizes, outlines, grass, height of cut, use, parts, sites and notes."
          leaves="things to keep off, soil, other measurements, water and everything that was done there"
        />
      </Section>
      <Section title="Bring it in">
        {may ? (
          <ImportBench
            accept=".geojson,.json,application/geo+json"
            about="Pick a GeoJSON file of polygons. First it is shown what would change; nothing is kept until you say so."
            preview={preview}
            keep={keep}
            onKept={(done) => {
              say(done.sentence);
              void navigate(`/a/${account.slug}/ground`);
            }}
          />
        ) : (
          <Notice tone="note">Only a manager brings ground in.</Notice>
        )}
      </Section>
    </Page>
  );
}
