import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { Switch } from "../../parts/Switch";
import { Tank } from "../../parts/Tank";
import { Vessel } from "../../parts/Vessel";
import { useFold } from "../../parts/useFold";
import { PourCheck } from "./PourCheck";
import { ticked, type Tick } from "./ticks";

const Box = styled.section`
  margin-top: 28px;
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 4px 16px;
    padding-bottom: 6px;
    border-bottom: 1px solid ${t.hair};
  }
  header p {
    flex: 1;
    color: ${t.soft};
  }
  @media print {
    break-inside: avoid;
  }
`;
const Body = styled.div<{ $shut: boolean }>`
  display: ${({ $shut }) => ($shut ? "none" : "grid")};
  grid-template-columns: minmax(0, 1fr) 170px 245px;
  gap: 20px;
  padding-top: 8px;
  align-items: start;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
  @media print {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 120px 140px;
  }
`;

const Fall = styled.p`
  padding-top: 6px;
`;

const Vessels = styled.div`
  display: grid;
  gap: 16px;
  ${t.phone} {
    grid-template-columns: 1fr 1fr;
  }
  figure {
    margin: 0;
  }
  figcaption {
    font-size: ${t.s13};
    font-weight: 600;
  }
  figcaption small {
    display: block;
    font-weight: 400;
    color: ${t.soft};
  }
`;

interface Props {
  load: Schemas["LoadOut"];
  round: Schemas["RoundOut"];
  open: boolean;
  onTick: (tick: Tick) => void;
}

/** The pour check beside the act that pours a product. */
function Pour({ of, poured, load, round, open }: Omit<Props, "onTick"> & { of: string; poured: boolean }) {
  const place = load.pours.findIndex((p) => p.product === of);
  const pour = load.pours[place];
  if (!pour?.measure) return null;
  return <PourCheck round={round} load={load} place={place} pour={pour} open={open} poured={poured} />;
}

/** One load of the mix sheet: its acts to tick, its vessel, its tank. A load that is out folds away. */
export function LoadSheet({ load, round, open, onTick }: Props) {
  const done = load.acts.every((a) => ticked(round, load.number, a.key));
  const falls = round.falls[round.sheet.loads.indexOf(load)];
  const { box, shut, turn } = useFold<HTMLElement>(done);
  const poured = load.pours
    .map((p) => {
      if (!p.measure) return `${p.product} ${p.amount}`;
      return load.pours.length > 1 ? `${p.measure.instruction} of ${p.product}` : p.measure.instruction;
    })
    .join(", ");
  const filled = load.volume ? `${poured} in ${load.volume}` : poured;
  const fill = [filled, load.dial && `dial at ${load.dial}`, load.time && `lasts ${load.time}`]
    .filter(Boolean)
    .join(", ");
  return (
    <Box ref={box} aria-label={load.name}>
      <header>
        <h2>{load.name}</h2>
        <p>
          {fill}, covers {load.covers}
          {load.where && `, for ${load.where}`}
          {load.odd && round.sheet.loads.length > 1 ? ", not full" : ""}
        </p>
        {done && (
          <Button look="quiet" data-fold onPress={turn}>
            {shut ? "Put down · show" : "Fold it away"}
          </Button>
        )}
      </header>
      {falls && <Fall>{falls}</Fall>}
      <Body $shut={shut}>
        <ol>
          {load.acts.map((act) => {
            const tick = ticked(round, load.number, act.key);
            return (
              <li key={act.key}>
                <Switch
                  large
                  value={!!tick}
                  disabled={!open}
                  onChange={(now) => onTick({ load: load.number, act: act.key, done: now })}
                >
                  {act.text}
                </Switch>
                {act.pours && <Pour of={act.pours} poured={!!tick} load={load} round={round} open={open} />}
              </li>
            );
          })}
        </ol>
        <Vessels>
          {load.pours.map(
            (p) =>
              p.measure && (
                <figure key={p.product}>
                  <figcaption>
                    {load.pours.length > 1 && p.product}
                    <small>in the {p.measure.vessel.name}</small>
                  </figcaption>
                  <Vessel measure={p.measure} />
                </figure>
              ),
          )}
        </Vessels>
        <Tank load={load} capacity={round.sheet.capacity} />
      </Body>
    </Box>
  );
}
