import { useNavigate } from "react-router";
import { api, read, send } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { InArchive } from "../../parts/InArchive";
import { ImportBench, type Taken } from "../../parts/ImportBench";
import { Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Section } from "../../parts/Section";

const body = (file: Taken) => ({
  form: file.name.toLowerCase().endsWith(".csv") ? "csv" : "json",
  text: file.text,
});

/** The shelf in and out: JSON holds whole cards, CSV a line a rate. */
export function ShelfFiles() {
  const account = useAccount();
  const may = useMay("manager");
  const navigate = useNavigate();
  const at = `/api/accounts/${account.slug}/products`;
  const preview = useChange((path, file: Taken) =>
    read(api.POST("/api/accounts/{account}/products/import/preview", { params: { path }, body: body(file) })),
  );
  const keep = useChange((path, file: Taken) =>
    read(send.POST("/api/accounts/{account}/products/import", { params: { path }, body: body(file) })),
  );
  return (
    <Page sentence="The shelf in and out: whole cards as JSON, rates as CSV.">
      <Section title="Take it out">
        <p>
          <a href={`${at}/shelf.json`} download>
            Export the shelf as JSON
          </a>
          {" or "}
          <a href={`${at}/shelf.csv`} download>
            as CSV
          </a>
          .
        </p>
        <p>
          <a href={`/api/accounts/${account.slug}/proof/binder.pdf`} target="_blank" rel="noreferrer">
            Print the label binder (PDF)
          </a>
          . Every card, and after it its label as it was photographed.
        </p>
        <InArchive
          holds="JSON holds everything of a card. CSV has a line a rate, with the first package, for a spreadsheet; its rules stay as they are here."
          leaves="stock, label pictures and, in CSV, rules, gear and further packages"
        />
      </Section>
      <Section title="Bring it in">
        {may ? (
          <ImportBench
            accept=".json,.csv,application/json,text/csv"
            about="Pick a file. Products are told apart by name. First it is shown what would change; nothing is kept until you say so."
            preview={preview}
            keep={keep}
            onKept={(done) => {
              say(done.sentence);
              void navigate(`/a/${account.slug}/shelf`);
            }}
          />
        ) : (
          <Notice tone="note">Only a manager brings products in.</Notice>
        )}
      </Section>
    </Page>
  );
}
