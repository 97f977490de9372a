import styled from "styled-components";

/** A long list that scrolls in its place. */
export const Scroll = styled.div`
  max-height: 320px;
  overflow: auto;
`;
