import { useState } from "react";
import type { Kitchen, Schemas } from "../../api/client";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { useWords } from "../../frame/units";
import { type Pin, readPin, setPin } from "../../theme/pin";
import { DEGREES, MASSES, temp, tempUnit, typedNumber, typedTemp } from "../../words/format";

/** The kitchen itself: its name, where it lies, its tap water, the units it reads in, its light. */
export function House({
  kitchen: k,
  fault,
  onChange,
}: {
  kitchen: Kitchen;
  fault: (name: string) => string | null;
  onChange: (values: Schemas["KitchenUpdate"]) => void;
}) {
  const units = useWords();
  const [pin, pinTo] = useState<Pin>(readPin);
  return (
    <>
      <Field
        label="Kitchen"
        value={k.name}
        width="100%"
        onCommit={(name) => onChange({ name })}
        fault={fault("name")}
      />
      <div className="row">
        <Field
          label="Time zone"
          value={k.zone}
          width="10em"
          onCommit={(zone) => onChange({ zone })}
          fault={fault("zone")}
        />
        <Field
          label="Height above sea"
          value={String(k.altitude_m)}
          unit="m"
          width="8em"
          onCommit={(t) => onChange({ altitude_m: typedNumber(t) })}
          fault={fault("altitude_m")}
        />
        <Field
          label="Tap water"
          value={temp(k.tap_c, units, 1)}
          unit={tempUnit(units)}
          width="7em"
          onCommit={(t) => onChange({ tap_c: typedTemp(t, units) })}
          fault={fault("tap_c")}
        />
      </div>
      <div className="row">
        <Choice
          label="Weights"
          value={k.mass_unit as "g"}
          options={MASSES}
          onChange={(mass_unit) => onChange({ mass_unit })}
        />
        <Choice
          label="Temperatures"
          value={k.temp_unit as "C"}
          options={DEGREES}
          onChange={(temp_unit) => onChange({ temp_unit })}
        />
      </div>
      <Choice
        label="Light"
        value={pin}
        options={[
          { id: "system", text: "as the system" },
          { id: "day", text: "day" },
          { id: "night", text: "night" },
        ]}
        onChange={(p) => {
          setPin(p);
          pinTo(p);
        }}
      />
    </>
  );
}
