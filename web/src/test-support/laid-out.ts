import { afterEach } from '@jest/globals';

const asItWas = Element.prototype.getBoundingClientRect;
afterEach(() => {
  Element.prototype.getBoundingClientRect = asItWas;
});

const HEIGHT = 50;

/** Rows stand one below the other until the test ends; nothing is laid out here by itself. */
export function laidOut(): void {
  Element.prototype.getBoundingClientRect = function (this: Element) {
    const row = this.closest('li');
    const top = (row ? [...(row.parentElement?.children ?? [])].indexOf(row) : 0) * HEIGHT;
    const box = { x: 0, y: top, left: 0, top, width: 200, height: HEIGHT, right: 200, bottom: top + HEIGHT };
    return { ...box, toJSON: () => box } as DOMRect;
  };
}
