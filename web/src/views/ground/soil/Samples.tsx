import { Fragment } from "react";
import styled from "styled-components";
import { useAddSample, useRemoveSample, type Sample } from "../../../api/soil";
import { say } from "../../../app/toast";
import { t } from "../../../app/theme";
import { Button } from "../../../parts/Button";
import { Ledger } from "../../../parts/Ledger";
import { Fault } from "../../../parts/Notice";

const Day = styled.th`
  padding-top: 14px;
`;
const Small = styled.small`
  display: block;
  color: ${t.soft};
`;

/** The samples of an area, each beside the last of its spot. */
export function Samples({ area, soil, may }: { area: number; soil: Sample[]; may: boolean }) {
  const remove = useRemoveSample(area);
  const add = useAddSample(area);
  const takeOut = (s: Sample) =>
    remove.mutate(s.id, {
      onSuccess: () =>
        say(`The sample of ${s.spot} is taken out.`, () =>
          add.mutate({
            taken_on: s.taken_on,
            spot: s.spot,
            spot_id: s.spot_id,
            ph: s.ph,
            depth: s.depth ? { value: s.depth, unit: "in" } : null,
            how: s.how,
            lab: s.lab,
            number: s.number,
            figures: s.figures.map(({ kind, value, unit, method }) => ({ kind, value, unit, method })),
            values: s.values,
          }),
        ),
    });
  return (
    <>
      <Fault error={remove.error ?? add.error} />
      <Ledger>
        <thead>
          <tr>
            <th>Spot</th>
            <th className="figure">pH</th>
            <th>What was found</th>
            {may && <th aria-label="Take out" />}
          </tr>
        </thead>
        <tbody>
          {soil.map((s, i) => (
            <Fragment key={s.id}>
              {s.day !== soil[i - 1]?.day && (
                <tr>
                  <Day colSpan={may ? 4 : 3} scope="rowgroup">
                    {s.day}
                  </Day>
                </tr>
              )}
              <tr>
                <td>
                  {s.spot}
                  <Small>{s.depth && `${s.depth} deep`}</Small>
                </td>
                <td className="figure">{s.ph}</td>
                <td>
                  {[...s.figures.map((f) => f.text), s.values].filter(Boolean).join("; ")}
                  <Small>{s.from_text}</Small>
                  {s.since && <Small>{[`${s.since}.`, ...s.doubts].join(" ")}</Small>}
                </td>
                {may && (
                  <td className="figure">
                    <Button
                      look="quiet"
                      aria-label={`Take out the sample of ${s.spot}`}
                      onPress={() => takeOut(s)}
                    >
                      Take out
                    </Button>
                  </td>
                )}
              </tr>
            </Fragment>
          ))}
        </tbody>
      </Ledger>
    </>
  );
}
