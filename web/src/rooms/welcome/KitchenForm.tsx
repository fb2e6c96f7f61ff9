import { useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { useKitchenWrites } from "../../api/kitchen";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { Pick } from "../../controls/Pick";
import { Plate } from "../../controls/Notice";
import { capital, readTemp } from "../../words/format";
import { spotsOf, SURFACES, type SurfaceKind } from "../../words/surfaces";

const Form = styled.div`
  display: grid;
  gap: 18px;
  max-width: 760px;
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 14px 30px;
    align-items: end;
  }
  .ask {
    display: grid;
    gap: 6px;
  }
  label,
  .label {
    font-size: 17px;
    color: var(--ink-2);
  }
`;
const here = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";

/** A kitchen of one's own: room, one surface, zone, units. Everything else can wait. */
export function KitchenForm() {
  const go = useNavigate();
  const { create } = useKitchenWrites(0);
  const [room, setRoom] = useState("21");
  const [zone, setZone] = useState(here);
  const [mass, setMass] = useState<"g" | "oz">("g");
  const [unit, setUnit] = useState<"C" | "F">("C");
  const [kind, setKind] = useState<SurfaceKind>("iron_plate");
  const [spots, setSpots] = useState("1");
  const fields =
    create.error && "fields" in create.error
      ? (create.error as { fields: { pointer: string; detail: string }[] }).fields
      : [];
  const fault = (name: string) => fields.find((f) => f.pointer === `/${name}`)?.detail ?? null;
  const send = () => {
    const surface = SURFACES.find((s) => s.id === kind)!;
    create.mutate(
      {
        zone,
        room_c: (readTemp(room, { mass, temp: unit }) ?? room) as number,
        mass_unit: mass,
        temp_unit: unit,
        name: "My kitchen",
        altitude_m: 0,
        surface: { name: capital(surface.text), kind, power: "medium_high", spots: Number(spots) },
      },
      { onSuccess: (k) => void go(`/k/${k.id}/new`) },
    );
  };
  return (
    <Form>
      <div className="row">
        <Field
          label="Your kitchen is usually at"
          value={room}
          unit={`°${unit}`}
          width="9em"
          big
          onType={setRoom}
          onCommit={setRoom}
          fault={fault("room_c")}
          inputMode="decimal"
        />
        <div className="ask">
          <span className="label">temperatures in</span>
          <Choice
            label="Temperatures in"
            value={unit}
            options={[
              { id: "C", text: "°C" },
              { id: "F", text: "°F" },
            ]}
            onChange={setUnit}
          />
        </div>
        <div className="ask">
          <span className="label">weights in</span>
          <Choice
            label="Weights in"
            value={mass}
            options={[
              { id: "g", text: "grams" },
              { id: "oz", text: "ounces" },
            ]}
            onChange={setMass}
          />
        </div>
      </div>
      <div className="row">
        <Pick
          label="You bake on"
          value={kind}
          options={SURFACES}
          onChange={(k) => {
            setKind(k);
            setSpots("1");
          }}
        />
        <Pick label="Breads at once" value={spots} options={spotsOf(kind)} onChange={setSpots} />
      </div>
      <Field label="Time zone" value={zone} width="16em" onType={setZone} onCommit={setZone} fault={fault("zone")} />
      {create.error && fields.length === 0 && <Plate>{create.error.message}</Plate>}
      <div>
        <Button data-kind="brass" onPress={send} isDisabled={create.isPending}>
          Open my kitchen
        </Button>
      </div>
    </Form>
  );
}
