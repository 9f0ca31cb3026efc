import type { useEnergy } from '../data/energy.js';
import { useJob } from '../data/job-context.js';
import { NumberField } from '../ui/field.js';

/** What a kWh costs, asked wherever a cost is told. */
export function TariffField({
  tariff,
  setTariff,
}: Pick<ReturnType<typeof useEnergy>, 'tariff' | 'setTariff'>) {
  const currency = useJob().job.money?.currency;
  return (
    <NumberField
      label="A kWh costs"
      unit={currency ? `0.01 ${currency}` : 'hundredths'}
      max={1000}
      zeroIsEmpty
      value={tariff}
      onNumber={setTariff}
    />
  );
}
