import { useNavigate } from "react-router";
import { api, read, send } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Hint } from "../../parts/Field";
import { InArchive } from "../../parts/InArchive";
import { ImportBench, type Taken } from "../../parts/ImportBench";
import { Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Section } from "../../parts/Section";

/** The book in and out as CSV: past applications come in line by line, marked where a rule stood against them. */
export function BookFiles() {
  const account = useAccount();
  const may = useMay("manager");
  const navigate = useNavigate();
  const preview = useChange((path, file: Taken) =>
    read(
      api.POST("/api/accounts/{account}/rounds/import/preview", {
        params: { path },
        body: { text: file.text },
      }),
    ),
  );
  const keep = useChange((path, file: Taken) =>
    read(send.POST("/api/accounts/{account}/rounds/import", { params: { path }, body: { text: file.text } })),
  );
  return (
    <Page sentence="Import past applications, or export the book, as CSV.">
      <Section title="Export">
        <p>
          <a href={`/api/accounts/${account.slug}/book/book.csv`} download>
            Export the book as CSV
          </a>
          . A line an application, oldest first.
        </p>
        <InArchive
          holds="What went down where, when, how much, by whom and in which weather."
          leaves="what is struck, the mix sheets, what was measured into each tank, and calibrations"
        />
      </Section>
      <Section title="Import past applications">
        {may ? (
          <>
            <ImportBench
              accept=".csv,text/csv"
              about="Pick a CSV file. First every line is shown with what it would put in the book; nothing is kept until you say so."
              preview={preview}
              keep={keep}
              onKept={(done) => {
                say(done.sentence);
                void navigate(`/a/${account.slug}/book`);
              }}
            />
            <Hint style={{ marginTop: 16 }}>
              The first line names the columns, in any order. Needed: date, area, product, machine, and either
              used with used_unit or actual_rate with rate_unit. Areas, products and machines are known by
              their names here. What went against a label is recorded and marked. The stock stays as it is.
            </Hint>
          </>
        ) : (
          <Notice tone="note">Only a manager imports records.</Notice>
        )}
      </Section>
    </Page>
  );
}
