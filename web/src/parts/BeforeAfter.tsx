import { useState } from "react";
import { Slider, SliderThumb, SliderTrack } from "react-aria-components";
import styled from "styled-components";
import { t } from "../app/theme";

const Frame = styled.div`
  position: relative;
  max-width: 760px;
  border: 1px solid ${t.rule};
  background: ${t.wash};
  overflow: hidden;
  img {
    display: block;
    width: 100%;
    aspect-ratio: 4 / 3;
    object-fit: cover;
  }
  .over {
    position: absolute;
    inset: 0;
  }
  .day {
    position: absolute;
    top: 10px;
    padding: 3px 8px;
    background: ${t.sheet};
    color: ${t.ink};
    font-size: ${t.s13};
  }
`;
const Rail = styled(Slider)`
  position: absolute;
  inset: 0;
  .track {
    width: 100%;
    height: 100%;
    cursor: ew-resize;
  }
  .thumb {
    top: 50%;
    width: 44px;
    height: 44px;
    border-radius: 50%;
    background: ${t.sheet};
    border: 2px solid ${t.accent};
    &::before {
      content: "";
      position: absolute;
      left: 50%;
      top: -2000px;
      bottom: -2000px;
      width: 2px;
      margin-left: -1px;
      background: ${t.sheet};
      z-index: -1;
    }
    &::after {
      content: "◂ ▸";
      position: absolute;
      inset: 0;
      display: grid;
      place-items: center;
      color: ${t.accent};
      font-size: ${t.s13};
    }
    &[data-focus-visible] {
      outline: 3px solid ${t.accent};
      outline-offset: 2px;
    }
  }
`;
const Beside = styled.div`
  display: none;
  @media print {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 8px;
    img {
      width: 100%;
    }
  }
`;

interface Side {
  src: string;
  day: string;
}

/** Two pictures one over the other, parted by a slider; beside each other on paper. */
export function BeforeAfter({ before, after }: { before: Side; after: Side }) {
  const [at, setAt] = useState(50);
  return (
    <>
      <Frame className="screen">
        <img src={after.src} alt={`After: ${after.day}`} />
        <img
          className="over"
          src={before.src}
          alt={`Before: ${before.day}`}
          style={{ clipPath: `inset(0 ${100 - at}% 0 0)` }}
        />
        <Rail
          value={at}
          onChange={(next) => setAt(next as number)}
          aria-label="How much of the older picture shows, in %"
        >
          <SliderTrack className="track">
            <SliderThumb className="thumb" />
          </SliderTrack>
        </Rail>
        <span className="day" style={{ left: 10 }}>
          {before.day}
        </span>
        <span className="day" style={{ right: 10 }}>
          {after.day}
        </span>
      </Frame>
      <Beside>
        <img src={before.src} alt="" />
        <img src={after.src} alt="" />
      </Beside>
    </>
  );
}
