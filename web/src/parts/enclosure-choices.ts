/** What a box is made of, as it is asked for; one of metal is bonded or not. */
export const MATERIALS = [
  { value: 'plastic', label: 'plastic' },
  { value: 'bonded', label: 'metal, bonded' },
  { value: 'unbonded', label: 'metal, not bonded' },
] as const;

export const PLATES = [
  { value: 'plastic', label: 'plastic' },
  { value: 'metal', label: 'metal' },
  { value: 'glass', label: 'glass' },
] as const;
