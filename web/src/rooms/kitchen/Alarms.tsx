import { useState } from "react";
import { type Channel, channelOn, setChannel } from "../../alarms/channels";
import { play } from "../../alarms/sound";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { Plate } from "../../controls/Notice";
import { SAY } from "../../words/say/kitchen";

const NAMES: readonly [Channel, string][] = [
  ["sound", "Sound"],
  ["speech", "Spoken line"],
  ["notice", "Browser’s notice"],
];

/** How alarms reach the cook on this device: ten minutes before a move, when it is due, ten minutes before its window closes. */
export function Alarms() {
  const [on, setOn] = useState(
    () => Object.fromEntries(NAMES.map(([c]) => [c, channelOn(c)])) as Record<Channel, boolean>,
  );
  const [refused, setRefused] = useState(false);
  const turn = (channel: Channel, wanted: boolean) =>
    void setChannel(channel, wanted).then((is) => {
      setRefused(wanted && !is);
      setOn({ ...on, [channel]: is });
    });
  return (
    <section>
      <p className="quiet">{SAY.tenMinutesBeforeAMoveWhen}</p>
      <div className="row">
        {NAMES.map(([channel, name]) => (
          <span key={channel} style={{ display: "grid", gap: 4 }}>
            <span className="quiet">{name}</span>
            <Choice
              label={name}
              value={on[channel] ? "on" : "off"}
              options={[
                { id: "on", text: "on" },
                { id: "off", text: "off" },
              ]}
              onChange={(v) => turn(channel, v === "on")}
            />
          </span>
        ))}
        <Button onPress={() => void play("test")}>Try the sound</Button>
      </div>
      {refused && <Plate>{SAY.thisBrowserDoesNotAllowNotices}</Plate>}
    </section>
  );
}
