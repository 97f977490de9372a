import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { t } from "../../../app/theme";
import { Button } from "../../../parts/Button";
import { Notice } from "../../../parts/Notice";
import { Bar } from "../../../parts/Section";
import { Switch } from "../../../parts/Switch";

const Frame = styled.div`
  position: relative;
  max-width: 640px;
  margin-top: 14px;
  border: 1px solid ${t.rule};
  background: #000;
  video,
  img {
    display: block;
    width: 100%;
    aspect-ratio: 4 / 3;
    object-fit: cover;
  }
  img {
    position: absolute;
    inset: 0;
    opacity: 0.4;
    pointer-events: none;
  }
`;

/** The camera of this device, with the last picture of the spot faint over it, so that one stands where one stood. */
export function Camera({
  ghost,
  onTake,
  onDone,
}: {
  ghost: string;
  onTake: (file: File) => void;
  onDone: () => void;
}) {
  const video = useRef<HTMLVideoElement>(null);
  const [wrong, setWrong] = useState("");
  const [ready, setReady] = useState(false);
  const [over, setOver] = useState(true);
  useEffect(() => {
    let stream: MediaStream | undefined;
    let left = false;
    const wanted = { video: { facingMode: "environment", width: { ideal: 2400 }, height: { ideal: 1800 } } };
    navigator.mediaDevices.getUserMedia(wanted).then(
      (found) => {
        stream = found;
        if (left || !video.current) return found.getTracks().forEach((track) => track.stop());
        video.current.srcObject = found;
      },
      () =>
        setWrong(
          "The camera cannot be used here: it is not allowed, or there is none. Choose photographs instead.",
        ),
    );
    return () => {
      left = true;
      stream?.getTracks().forEach((track) => track.stop());
    };
  }, []);
  const take = () => {
    const from = video.current!;
    const sheet = document.createElement("canvas");
    sheet.width = from.videoWidth;
    sheet.height = from.videoHeight;
    sheet.getContext("2d")!.drawImage(from, 0, 0);
    sheet.toBlob(
      (blob) => blob && onTake(new File([blob], "photograph.jpg", { type: "image/jpeg" })),
      "image/jpeg",
      0.92,
    );
  };
  if (wrong) {
    return (
      <>
        <Notice tone="caution" word="No camera">
          {wrong}
        </Notice>
        <Bar style={{ marginTop: 12 }}>
          <Button onPress={onDone}>Choose photographs</Button>
        </Bar>
      </>
    );
  }
  return (
    <>
      <Frame>
        <video
          ref={video}
          autoPlay
          muted
          playsInline
          aria-label="What the camera sees"
          onLoadedData={() => setReady(true)}
        />
        {ghost && over && <img src={ghost} alt="The last picture of this spot, faint" />}
      </Frame>
      {ghost && (
        <Switch value={over} onChange={setOver}>
          Show the last picture over it
        </Switch>
      )}
      <Bar style={{ marginTop: 12 }}>
        <Button look="main" isDisabled={!ready} onPress={take}>
          Take the photograph
        </Button>
        <Button look="quiet" onPress={onDone}>
          Close the camera
        </Button>
      </Bar>
    </>
  );
}
