import type { namesOf } from '@inventario/core';
import { Printer } from 'lucide-react';
import { Button } from '../../ui/button.js';

/** The card of words that work, by app; printed for the client's wall. */
export function WordsThatWork({ names }: { names: ReturnType<typeof namesOf> }) {
  const platforms = [...new Set(names.flatMap(({ phrases }) => phrases.map(({ platform }) => platform)))];
  if (platforms.length === 0) return <p>The words that work stand here once there are names.</p>;
  return (
    <div className="flex flex-col gap-4">
      {platforms.map((platform) => {
        const phrases = names.flatMap((entry) =>
          entry.phrases.filter((phrase) => phrase.platform === platform),
        );
        return (
          <section key={platform}>
            <h2 className="mb-1 font-bold">{platform}</h2>
            <p className="text-sm text-soft">
              {phrases[0]?.scenes ? 'Two scenes each, to be made there:' : 'Say:'}
            </p>
            <ul className="text-sm">
              {phrases.map(({ on, off }) => (
                <li key={`${on}${off}`} className="border-t border-rule py-1">
                  “{on}”, “{off}”
                </li>
              ))}
            </ul>
          </section>
        );
      })}
      <Button icon={Printer} onClick={() => print()}>
        Print the card
      </Button>
    </div>
  );
}
