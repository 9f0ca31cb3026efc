/** `39.00 USD`; without a currency the bare figure. Amounts are minor units. */
export function moneyText(minor: number, currency: string | undefined): string {
  return `${(minor / 100).toFixed(2)}${currency ? ` ${currency}` : ''}`;
}
