/** Decimals a currency has, by its code (ISO 4217); two for a code nobody knows, or none. */
function decimalsOf(currency: string | undefined): number {
  let known = decimals.get(currency);
  if (known === undefined) {
    known = askIntl(currency);
    decimals.set(currency, known);
  }
  return known;
}

const decimals = new Map<string | undefined, number>();

function askIntl(currency: string | undefined): number {
  try {
    const format = new Intl.NumberFormat('en', { style: 'currency', currency: currency ?? 'XXX' });
    return format.resolvedOptions().maximumFractionDigits ?? 2;
  } catch {
    // A job may name a currency in any words; only codes of three letters are known.
    return 2;
  }
}

/** Minor units as whole ones: `moneyAmount(3900, 'USD')` is 39, `moneyAmount(3900, 'JPY')` is 3900. */
export function moneyAmount(minor: number, currency: string | undefined): number {
  return minor / 10 ** decimalsOf(currency);
}

/**
 * As it is written where it is spent: `moneyText(123450, 'USD')` is `$1,234.50`. A currency nobody knows
 * stands behind the figure; without one the figure is bare.
 */
export function moneyText(minor: number, currency: string | undefined): string {
  const amount = moneyAmount(minor, currency);
  const digits = decimalsOf(currency);
  const options = { minimumFractionDigits: digits, maximumFractionDigits: digits };
  if (currency && /^[A-Za-z]{3}$/.test(currency))
    return new Intl.NumberFormat('en', {
      ...options,
      style: 'currency',
      currency,
      currencyDisplay: 'narrowSymbol',
    }).format(amount);
  const figure = new Intl.NumberFormat('en', options).format(amount);
  return currency ? `${figure} ${currency}` : figure;
}

/** What was typed in whole units, in minor ones: `minorOf(39.5, 'USD')` is 3950. */
export function minorOf(amount: number, currency: string | undefined): number {
  return Math.round(amount * 10 ** decimalsOf(currency));
}
