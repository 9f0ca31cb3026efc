import { Automation, issueWords } from '@inventario/core';
import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import { type UseFormReturn, useFieldArray, useForm } from 'react-hook-form';
import { newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Button } from '../../ui/button.js';
import { PickOne, Segments } from '../../ui/choice.js';
import { Dialog } from '../../ui/dialog.js';
import { NumberField, TextField } from '../../ui/field.js';
import { Ticks } from '../../ui/ticks.js';
import { Toggle } from '../../ui/toggle.js';
import { formOf, type RuleForm, ruleOf, type StarterKind, type WEEKDAYS } from './rule-form.js';
import { targetOptions } from './target-options.js';

const STARTERS: { value: StarterKind; label: string }[] = [
  { value: 'at', label: 'a time' },
  { value: 'sunset', label: 'sunset' },
  { value: 'sunrise', label: 'sunrise' },
  { value: 'motion', label: 'motion' },
  { value: 'humidity', label: 'damp air' },
  { value: 'tap', label: 'taps' },
  { value: 'presence', label: 'coming or going' },
  { value: 'countdown', label: 'a countdown' },
];
const DAY_WORDS = { mon: 'Mo', tue: 'Tu', wed: 'We', thu: 'Th', fri: 'Fr', sat: 'Sa', sun: 'Su' } as const;
const DOES = [
  { value: 'on', label: 'on' },
  { value: 'off', label: 'off' },
  { value: 'toggle', label: 'turn over' },
  { value: 'level', label: 'to a level' },
] as const;

/** When, if, then: one rule of whichever app. */
export function RuleDialog({
  rule,
  onKeep,
  onClose,
}: {
  rule: Automation | null;
  onKeep: (rule: Automation) => void;
  onClose: () => void;
}) {
  const { known, job } = useJob();
  const targets = targetOptions(known, true);
  const lives = (job.brief?.platforms ?? []).map(({ name }) => name);
  const form = useForm<RuleForm>({
    defaultValues: formOf(rule, lives[0] ?? 'the maker’s app', targets[0]?.value ?? ''),
  });
  const { watch, setValue, handleSubmit } = form;
  const [problem, setProblem] = useState<string | null>(null);
  const typed = watch();
  const set = <Field extends keyof RuleForm>(field: Field, value: RuleForm[Field]) =>
    setValue(field, value as never);
  const keep = handleSubmit((values) => {
    const made = ruleOf(values, known, rule ?? { id: newId() });
    const checked = Automation.safeParse(made);
    if (made.name === '') setProblem('Give the rule a name.');
    else if (!checked.success) {
      const [first] = checked.error.issues;
      setProblem(`${first?.path.join(' ') || 'It'}: ${first ? issueWords(first) : 'is not right'}`);
    } else onKeep(made);
  });
  return (
    <Dialog title={rule ? 'Rule' : 'New rule'} open onClose={onClose}>
      <form className="flex flex-col gap-3" onSubmit={(event) => void keep(event)}>
        <TextField label="Name" value={typed.name} maxLength={100} onText={(text) => set('name', text)} />
        <TextField
          label="Lives in"
          hint="The app that runs it"
          value={typed.lives}
          maxLength={100}
          onText={(text) => set('lives', text)}
        />
        <Segments
          label="When"
          value={typed.starter}
          options={STARTERS}
          onChoice={(kind) => set('starter', kind)}
        />
        <Starter typed={typed} set={set} />
        <Ticks
          legend="On"
          words={DAY_WORDS}
          ticked={typed.days}
          onTick={(days) => set('days', days as typeof WEEKDAYS)}
        />
        <div className="grid grid-cols-2 gap-2">
          <TextField
            label="Only from"
            placeholder="18:00"
            value={typed.from}
            maxLength={5}
            onText={(text) => set('from', text)}
          />
          <TextField
            label="to"
            placeholder="06:00"
            value={typed.to}
            maxLength={5}
            onText={(text) => set('to', text)}
          />
        </div>
        <Toggle label="Only while it is dark" on={typed.dark} onToggle={(on) => set('dark', on)} />
        {typed.starter !== 'countdown' && <Actions form={form} />}
        {problem && (
          <p role="alert" className="font-semibold">
            {problem}
          </p>
        )}
        <Button kind="main" type="submit">
          Keep the rule
        </Button>
      </form>
    </Dialog>
  );
}

/** What it then does, in this order. */
function Actions({ form }: { form: UseFormReturn<RuleForm> }) {
  const { known } = useJob();
  const targets = targetOptions(known, true);
  const actions = useFieldArray({ control: form.control, name: 'actions' });
  const typed = form.watch();
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="text-sm font-semibold text-soft">Then</legend>
      {actions.fields.map((field, index) => (
        <div key={field.id} className="flex flex-wrap items-end gap-2">
          <PickOne
            label={`Target ${index + 1}`}
            hideLabel
            className="min-w-40 flex-1"
            value={typed.actions[index]?.target ?? ''}
            options={targets}
            onChoice={(value) => form.setValue(`actions.${index}.target`, value)}
          />
          <PickOne
            label={`What ${index + 1} does`}
            hideLabel
            className="w-32"
            value={typed.actions[index]?.do ?? 'on'}
            options={DOES}
            onChoice={(value) => form.setValue(`actions.${index}.do`, value)}
          />
          {typed.actions[index]?.do === 'level' && (
            <NumberField
              label="Level"
              unit="%"
              max={100}
              value={typed.actions[index]?.value}
              onNumber={(value) => form.setValue(`actions.${index}.value`, value ?? 100)}
            />
          )}
          <Button kind="quiet" icon={X} iconOnly onClick={() => actions.remove(index)}>
            {`Take out ${index + 1}`}
          </Button>
        </div>
      ))}
      <Button
        icon={Plus}
        onClick={() => actions.append({ target: targets[0]?.value ?? '', do: 'on', value: 100 })}
      >
        Another
      </Button>
    </fieldset>
  );
}

/** What belongs to the starter that was picked. */
function Starter({
  typed,
  set,
}: {
  typed: RuleForm;
  set: <Field extends keyof RuleForm>(field: Field, value: RuleForm[Field]) => void;
}) {
  const { known } = useJob();
  const heard = (label: string) => (
    <PickOne
      label={label}
      value={typed.heard}
      options={targetOptions(known, typed.starter === 'countdown')}
      onChoice={(value) => set('heard', value)}
    />
  );
  switch (typed.starter) {
    case 'at':
      return (
        <TextField
          label="At"
          hint="HH:MM by the clock of the house"
          value={typed.time}
          maxLength={5}
          onText={(text) => set('time', text)}
        />
      );
    case 'sunrise':
    case 'sunset':
      return (
        <NumberField
          label={`Minutes after ${typed.starter}; below 0: before it`}
          min={-720}
          max={720}
          value={typed.offset}
          onNumber={(value) => set('offset', value ?? 0)}
        />
      );
    case 'motion':
      return heard('Seen by');
    case 'humidity':
      return (
        <div className="grid grid-cols-2 gap-2">
          {heard('Felt by')}
          <NumberField
            label="Above"
            unit="%"
            max={100}
            value={typed.above}
            onNumber={(value) => set('above', value ?? 65)}
          />
        </div>
      );
    case 'tap':
      return (
        <div className="grid grid-cols-2 gap-2">
          {heard('On')}
          <NumberField
            label="Taps"
            min={1}
            max={5}
            whole
            value={typed.taps}
            onNumber={(value) => set('taps', value ?? 2)}
          />
        </div>
      );
    case 'presence':
      return (
        <Segments
          label="Who"
          value={typed.presence}
          options={[
            { value: 'leave', label: 'the last one leaves' },
            { value: 'arrive', label: 'the first one comes' },
          ]}
          onChoice={(value) => set('presence', value)}
        />
      );
    case 'countdown':
      return (
        <div className="grid grid-cols-2 gap-2">
          {heard('Of')}
          <NumberField
            label="Minutes"
            min={1}
            value={typed.minutes}
            onNumber={(value) => set('minutes', value ?? 10)}
          />
        </div>
      );
  }
}
