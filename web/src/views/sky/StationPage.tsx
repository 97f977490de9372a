import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { useFetchNow, useStation } from "../../api/sky";
import { useAccount, useMay } from "../../app/session";
import { useSitePick } from "../../app/site";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { FreshLine } from "../../parts/FreshLine";
import { Ledger } from "../../parts/Ledger";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { skyParts } from "./skyParts";
import { ByHand } from "./ByHand";
import { Scroll } from "./Scroll";
import { StationForm } from "./StationForm";
import { stamp } from "../../parts/days";

type Station = Schemas["StationOut"];

/** Where weather comes from, how it went, and what was left out of it. */
export function StationPage() {
  const account = useAccount();
  const place = useSitePick();
  const found = useStation(place.site.id);
  const may = useMay("manager");
  const mayAsk = useMay("applicator");
  const fetch = useFetchNow(place.site.id);
  const asking = found.data?.station?.asking;
  useWhenAsked(found.data?.station);
  return (
    <Waiting of={found}>
      {(data) => (
        <Page
          sentence={
            data.station ? `${data.station.name}: ${data.station.span}` : "Where does your weather come from?"
          }
          act={
            mayAsk &&
            (data.station?.url || data.station?.probe_url) && (
              <Button
                look="main"
                onPress={() => fetch.mutate(undefined as never)}
                isDisabled={fetch.isPending || (!!asking && !asking.stuck)}
              >
                {fetch.isPending || (asking && !asking.stuck) ? "Asking …" : "Fetch it now"}
              </Button>
            )
          }
          margin={data.station && <Margin station={data.station} zone={place.site.time_zone} />}
        >
          <SubRule label="Parts of the sky" parts={skyParts(account.slug)} />
          {place.field}
          {data.station && <FreshLine fresh={data.station.fresh} />}
          {asking && (
            <Notice tone={asking.stuck ? "caution" : "note"} word="Wanted">
              {asking.sentence}
            </Notice>
          )}
          <Fault error={fetch.error} />
          {data.station && mayAsk && <ByHand all={data} zone={place.site.time_zone} />}
          {data.station && may && (
            <Section title="Files">
              <p>
                <Link to={`/a/${account.slug}/sky/files?site=${place.site.id}`}>
                  Bring in a file of weather
                </Link>
                : a table as CSV, or a typical year as EPW or TMY3.
              </p>
            </Section>
          )}
          {may && <StationForm key={data.station?.id ?? 0} all={data} />}
          {data.station && <LeftOut station={data.station} zone={place.site.time_zone} />}
        </Page>
      )}
    </Waiting>
  );
}

/** Say how the asking went once it is over, and read afresh what it may have changed. */
function useWhenAsked(station: Station | null | undefined) {
  const account = useAccount();
  const queries = useQueryClient();
  const was = useRef(false);
  const asking = !!station?.asking;
  const last = station?.fetches[0];
  useEffect(() => {
    if (was.current && !asking && last) {
      say(last.ok ? last.text : `It did not work: ${last.text}`);
      void queries.invalidateQueries({ queryKey: [account.slug] });
    }
    was.current = asking;
  }, [asking, last, account.slug, queries]);
}

function Margin({ station: s, zone }: { station: Station; zone: string }) {
  return (
    <>
      <Section title="Wet leaves, by three ways">
        <Ledger>
          <tbody>
            {s.estimators.map((e) => (
              <tr key={e.key}>
                <td>
                  {e.text}
                  {e.key === s.wetness && <div className="soft">counts here</div>}
                </td>
                <td className="figure">{e.wet}</td>
              </tr>
            ))}
          </tbody>
        </Ledger>
        <Hint style={{ marginTop: 8 }}>
          Over the last months. They differ, and mown turf is also wet by guttation, so that all run low.
        </Hint>
      </Section>
      <Section title="How the asking went">
        {s.fetches.length === 0 && <Hint>It has not been asked yet.</Hint>}
        <Ledger>
          <tbody>
            {s.fetches.map((f) => (
              <tr key={f.at} data-fetch={f.ok ? "ok" : "failed"}>
                <td className="day soft">{stamp(f.at, zone)}</td>
                <td>
                  {f.ok ? "" : "✕ "}
                  {f.text}
                </td>
              </tr>
            ))}
          </tbody>
        </Ledger>
      </Section>
    </>
  );
}

function LeftOut({ station: s, zone }: { station: Station; zone: string }) {
  return (
    <>
      {s.gaps.length > 0 && (
        <Section title="Gaps of the last months">
          <Scroll tabIndex={0} role="group" aria-label="Gaps">
            <Ledger>
              <tbody>
                {s.gaps.map((g) => (
                  <tr key={g.begin}>
                    <td>{g.text}</td>
                    <td className="figure">{g.hours} h</td>
                  </tr>
                ))}
              </tbody>
            </Ledger>
          </Scroll>
          <Hint>
            Those of up to {s.fill} h are read straight between their neighbours; the others stay open.
          </Hint>
        </Section>
      )}
      {s.aside.length > 0 && (
        <Section title="Set aside, for it cannot be">
          <Scroll tabIndex={0} role="group" aria-label="Values set aside">
            <Ledger>
              <tbody>
                {s.aside.map((a) => (
                  <tr key={`${a.at} ${a.field}`}>
                    <td className="day">{stamp(a.at, zone)}</td>
                    <td>{a.problem}</td>
                    <td className="soft">{a.source}</td>
                  </tr>
                ))}
              </tbody>
            </Ledger>
          </Scroll>
        </Section>
      )}
    </>
  );
}
