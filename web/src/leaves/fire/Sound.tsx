import { useState } from "react";
import { muted, play, setMuted } from "../../alarms/sound";
import { Button } from "../../controls/Button";

/** Switches the sounds of the heat off and on, and tries one. */
export function Sound({ test }: { test: boolean }) {
  const [off, setOff] = useState(muted);
  return (
    <>
      <Button
        data-kind="bare"
        onPress={() => {
          setMuted(!off);
          setOff(!off);
        }}
      >
        {off ? "sound is off" : "sound is on"}
      </Button>
      {test && (
        <Button data-kind="bare" onPress={() => void play("test")}>
          test it
        </Button>
      )}
    </>
  );
}
