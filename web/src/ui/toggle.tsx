import { Field, Label, Switch } from '@headlessui/react';

export function Toggle({
  label,
  on,
  onToggle,
}: {
  label: string;
  on: boolean;
  onToggle: (on: boolean) => void;
}) {
  return (
    <Field className="flex min-h-11 items-center gap-3">
      <Switch
        checked={on}
        onChange={onToggle}
        className="group flex h-7 w-12 shrink-0 items-center rounded-full border border-edge bg-well p-0.5 data-checked:bg-strong"
      >
        <span
          aria-hidden
          className="size-5 rounded-full bg-ink transition-transform group-data-checked:translate-x-5 group-data-checked:bg-onstrong"
        />
      </Switch>
      <Label>{label}</Label>
    </Field>
  );
}
