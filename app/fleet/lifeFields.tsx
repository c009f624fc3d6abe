/** When the part that is in was fitted, at what hours, and whether anybody knew how it was. */
import type { PresentLife } from "~/domain/assets/index.server";
import { CheckField, TextField } from "~/ui/form";
import { Section } from "~/ui/page";

export function LifeFields({ life }: { life?: PresentLife | null }) {
  return (
    <Section title="The part that is fitted now" className="mt-6">
      <div className="mt-3 grid gap-4 sm:grid-cols-3">
        <TextField
          name="startedAt"
          label="Fitted on"
          type="date"
          defaultValue={life?.startedAt ?? ""}
          hint={life ? "Not later than its first reading" : "Empty: today"}
        />
        <TextField
          name="startHours"
          label="Machine hours then"
          defaultValue={life ? String(life.startHours) : ""}
          hint="For example 12 400 h"
        />
        <TextField name="serial" label="Serial" maxLength={60} defaultValue={life?.serial ?? ""} />
      </div>
      <div className="mt-2">
        <CheckField
          name="knownWhenNew"
          label="It was new or of known condition when it was fitted"
          defaultChecked={life?.knownWhenNew ?? false}
        />
      </div>
    </Section>
  );
}
