/** When the part that is in was fitted, at what hours, and whether anybody knew how it was. */
import type { PresentLife } from "~/domain/assets/presentLife.server";
import { CheckField, TextField } from "~/ui/form";
import { Section } from "~/ui/page";
import { lifeFields as texts } from "./texts";

export function LifeFields({ life }: { life?: PresentLife | null }) {
  return (
    <Section title={texts.thePartThatIs} className="mt-6">
      <div className="mt-3 grid gap-4 sm:grid-cols-3">
        <TextField
          name="startedAt"
          label={texts.fittedOn}
          type="date"
          defaultValue={life?.startedAt ?? ""}
          hint={life ? texts.notLaterThanItsFirst : texts.emptyToday}
        />
        <TextField
          name="startHours"
          label={texts.machineHoursThen}
          defaultValue={life ? String(life.startHours) : ""}
          hint={texts.forExample12400}
        />
        <TextField name="serial" label={texts.serial} maxLength={60} defaultValue={life?.serial ?? ""} />
      </div>
      <div className="mt-2">
        <CheckField name="knownWhenNew" label={texts.itWasNewOr} defaultChecked={life?.knownWhenNew ?? false} />
      </div>
    </Section>
  );
}
