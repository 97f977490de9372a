import { useEffect, useRef } from "react";
import styled from "styled-components";
import uPlot from "uplot";
import "uplot/dist/uPlot.min.css";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";

const Box = styled.div`
  width: 100%;
  .u-legend {
    text-align: left;
    font: 500 ${t.s13} ${t.text};
  }
`;

const HEIGHT = 340;

/** Years of hours of one field. Drag over a span to look closer, press twice to see all of it again. */
export function LongChart({ long }: { long: Schemas["LongOut"] }) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const here = box.current;
    if (!here || !long.values.length) return;
    const ink = (name: string) => getComputedStyle(here).getPropertyValue(name).trim();
    const start = Date.parse(long.start) / 1000;
    const times = Float64Array.from(long.values, (_, i) => start + i * 3600);
    const axis = {
      stroke: ink("--soft"),
      grid: { stroke: ink("--hair"), width: 1 },
      ticks: { stroke: ink("--hair") },
    };
    const chart = new uPlot(
      {
        width: here.clientWidth,
        height: HEIGHT,
        cursor: { drag: { x: true, y: false } },
        axes: [axis, { ...axis, label: long.unit, size: 54 }],
        series: [
          { label: "Hour" },
          {
            label: long.name,
            stroke: ink("--accent"),
            width: 1,
            spanGaps: false,
            value: (_, v) => (v === null || v === undefined ? "—" : `${v} ${long.unit}`),
          },
        ],
      },
      [times as unknown as number[], long.values],
      here,
    );
    const fit = new ResizeObserver(() => chart.setSize({ width: here.clientWidth, height: HEIGHT }));
    fit.observe(here);
    return () => {
      fit.disconnect();
      chart.destroy();
    };
  }, [long]);
  return (
    <Box
      ref={box}
      role="img"
      aria-label={`${long.name} of ${long.values.length.toLocaleString("en")} hours`}
      data-hours={long.values.length}
    />
  );
}
