import { useWholeStory } from "../../api/story";
import { useAsked } from "../../app/asked";
import { useAccount, useMay } from "../../app/session";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { TimeLine } from "../ground/story/TimeLine";
import { Told } from "../ground/story/Told";
import { bookParts } from "./bookParts";

/** Everything that happened: of one site, or of all the ground. */
export function BookStory() {
  const account = useAccount();
  const [search, change] = useAsked();
  const site = Number(search.get("site")) || null;
  const whole = search.has("all");
  const story = useWholeStory(site, whole);
  const name = account.sites.find((s) => s.id === site)?.name;
  return (
    <Page sentence={`What was put down, what else was done and what was seen${name ? ` at ${name}` : ""}.`}>
      <SubRule label="Parts of the book" parts={bookParts(account.slug, useMay("manager"))} />
      {account.sites.length > 1 && (
        <div style={{ maxWidth: 260, marginBottom: 16 }}>
          <PickField
            label="Where"
            name="site"
            value={site ? String(site) : ""}
            options={[
              { key: "", text: "Everywhere" },
              ...account.sites.map((s) => ({ key: String(s.id), text: s.name })),
            ]}
            onChange={(key) => change({ site: key, all: undefined })}
          />
        </div>
      )}
      <Waiting of={story}>
        {(found) => (
          <>
            {found.events.length > 0 ? (
              <>
                <TimeLine events={found.events} today={found.today} />
                <div style={{ height: 16 }} />
                <Told events={found.events} first={40} />
              </>
            ) : (
              <Hint>
                {found.more
                  ? "Nothing has happened for more than a year."
                  : "Nothing has happened yet. What goes into the book, and what is noted on the areas’ pages, stands here."}
              </Hint>
            )}
            {found.more && !whole && (
              <Button look="quiet" onPress={() => change({ all: "1" })}>
                Show the years before
              </Button>
            )}
          </>
        )}
      </Waiting>
    </Page>
  );
}
