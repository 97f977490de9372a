import styled from "styled-components";
import type { Programme } from "../../../api/programme";
import { t } from "../../../app/theme";

type Total = Programme["areas"][number]["totals"][number];

const List = styled.ul`
  display: grid;
  gap: 4px;
  margin-top: 6px;
  font-size: ${t.s13};
  li {
    display: grid;
    grid-template-columns: 140px minmax(60px, 1fr) max-content;
    gap: 12px;
    align-items: center;
  }
  ${t.phone} {
    li {
      grid-template-columns: minmax(0, 1fr);
      gap: 2px;
    }
  }
`;
const Track = styled.span`
  position: relative;
  height: 10px;
  border: 1px solid ${t.rule};
  i {
    position: absolute;
    top: 0;
    bottom: 0;
  }
  .done {
    left: 0;
    background: ${t.accent};
  }
  .meant {
    background: repeating-linear-gradient(135deg, ${t.accent} 0 1.5px, transparent 1.5px 5px);
  }
  .usual {
    top: -4px;
    bottom: -4px;
    border-inline: 2px solid ${t.ink};
  }
  ${t.phone} {
    order: 1;
  }
`;

/** What a year brings of each nutrient: done, still meant, and between which ends it usually lies. */
export function Totals({ of }: { of: Total[] }) {
  return (
    <List>
      {of.map((x) => (
        <li key={x.name}>
          <span>{x.name}</span>
          <Track aria-hidden>
            <i className="done" style={{ width: `${x.share_done * 100}%` }} />
            <i
              className="meant"
              style={{ left: `${x.share_done * 100}%`, width: `${x.share_meant * 100}%` }}
            />
            {x.high > 0 && (
              <i className="usual" style={{ left: `${x.low * 100}%`, width: `${(x.high - x.low) * 100}%` }} />
            )}
          </Track>
          <span>{x.text}</span>
        </li>
      ))}
    </List>
  );
}
