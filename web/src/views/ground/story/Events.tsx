import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { useStrikeWork, type Event } from "../../../api/story";
import { useAccount, useMay } from "../../../app/session";
import { t } from "../../../app/theme";
import { Button } from "../../../parts/Button";
import { Ledger } from "../../../parts/Ledger";
import { StrikeForm } from "../../../parts/StrikeForm";
import { Small } from "../seen/Small";
import { StrikeReport } from "../seen/StrikeReport";
import { useNoted } from "./WorkForm";

const Title = styled.span<{ $struck: boolean; $faint: boolean }>`
  text-decoration: ${({ $struck }) => ($struck ? "line-through" : "none")};
  color: ${({ $faint }) => ($faint ? t.soft : "inherit")};
`;
const Marked = styled.span`
  color: ${t.stop};
  font-weight: 600;
`;
const Words = styled.div`
  color: ${t.soft};
  font-size: ${t.s13};
`;

/** Strikes a work. */
function Strike({ event, onDone }: { event: Event; onDone: () => void }) {
  const strike = useStrikeWork();
  return (
    <StrikeForm
      label={`Strike ${event.title}`}
      of={strike}
      onStrike={(why, then) => strike.mutate({ id: event.id!, why }, then)}
      onDone={onDone}
    />
  );
}

function Row({ event }: { event: Event }) {
  const at = `/a/${useAccount().slug}`;
  const may = useMay("applicator");
  const [striking, setStriking] = useState(false);
  const { noted, isPending } = useNoted();
  const title = (
    <Title $struck={!!event.struck} $faint={event.regular}>
      {event.title}
    </Title>
  );
  const notDone = () =>
    noted({
      kind: event.kind,
      area_ids: [event.area_id],
      on: event.on,
      clock: "",
      done: false,
      told: [],
      note: "",
    });
  return (
    <tr data-event={event.key}>
      <td className="day">
        {event.day}
        <Words>{event.clock}</Words>
      </td>
      <td>
        {event.link === "book" ? <Link to={`${at}/book/${event.id}`}>{title}</Link> : title}
        {event.where && (
          <Words>
            on <Link to={`${at}/ground/${event.area_id}`}>{event.where}</Link>
          </Words>
        )}
        {event.text && <Words>{event.text}</Words>}
        <Small area_id={event.area_id} photos={event.photos} />
        {event.marked && <Marked>Something stood against it.</Marked>}
        {event.struck && <Words>{event.struck}</Words>}
        {striking && (
          <div style={{ margin: "10px 0" }}>
            {event.link === "scouting" ? (
              <StrikeReport id={event.id!} text={event.title} onDone={() => setStriking(false)} />
            ) : (
              <Strike event={event} onDone={() => setStriking(false)} />
            )}
          </div>
        )}
      </td>
      <td className="soft wide">{event.by}</td>
      <td className="figure">
        {may && (event.link === "work" || event.link === "scouting") && !event.struck && !striking && (
          <Button
            look="quiet"
            aria-label={`Strike: ${event.title}, ${event.day}`}
            onPress={() => setStriking(true)}
          >
            Strike
          </Button>
        )}
        {may && event.regular && (
          <Button
            look="quiet"
            aria-label={`Not done: ${event.title}, ${event.day}`}
            isDisabled={isPending}
            onPress={notDone}
          >
            Not done
          </Button>
        )}
      </td>
    </tr>
  );
}

/** What happened on a ground, the newest first. */
export function Events({ events }: { events: Event[] }) {
  return (
    <Ledger>
      <tbody>
        {events.map((e) => (
          <Row key={e.key} event={e} />
        ))}
      </tbody>
    </Ledger>
  );
}
