/** @example wireSizeText('14AWG') // '14 AWG'; wireSizeText('1.5mm2') // '1.5 mm²' */
export function wireSizeText(size: string): string {
  return size.replace(/(\d)AWG\b/, '$1 AWG').replace(/(\d)mm2\b/, '$1 mm²');
}
