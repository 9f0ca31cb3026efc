import { RefreshCw } from 'lucide-react';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { Listeners } from '../data/listeners.js';
import { Button } from '../ui/button.js';

/** Looked for this often while a page stays open, ms. */
const LOOK_EVERY = 3_600_000;

/**
 * The service worker of this application, and whether a newer one waits. Nothing here ever reloads a page by
 * itself: what is being typed is worth more than a new version.
 */
class Versions {
  private waiting: ServiceWorker | null = null;
  private changed = false;
  private readonly listeners = new Listeners();

  readonly subscribe = this.listeners.subscribe;
  /**
   * `ready`: a newer version waits. `in use`: another tab has taken it already, and this page is of the one
   * before.
   */
  readonly state = (): 'ready' | 'in use' | null => (this.changed ? 'in use' : this.waiting ? 'ready' : null);

  async watch(): Promise<void> {
    const workers = navigator.serviceWorker;
    if (!workers) return;
    let controlled = workers.controller !== null;
    workers.addEventListener('controllerchange', () => {
      // The first worker takes this page over as it is; a later one brings another version.
      if (controlled) this.changed = true;
      controlled = true;
      this.tell();
    });
    const registration = await workers.register('/sw.js').catch(() => null);
    if (!registration) return;
    const look = () => {
      this.waiting = workers.controller ? registration.waiting : null;
      this.tell();
    };
    registration.addEventListener('updatefound', () =>
      registration.installing?.addEventListener('statechange', look),
    );
    look();
    setInterval(() => void registration.update().catch(() => {}), LOOK_EVERY);
    document.addEventListener('visibilitychange', () => {
      if (document.visibilityState === 'visible') void registration.update().catch(() => {});
    });
  }

  /** Puts the newer version in the place of this one, here and now. */
  use(): void {
    if (this.changed || !this.waiting) {
      location.reload();
      return;
    }
    navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true });
    this.waiting.postMessage({ type: 'SKIP_WAITING' });
  }

  private tell(): void {
    this.listeners.tell();
  }
}

const versions = new Versions();

/** Says that a newer version is there; it comes when it is asked for, and not while a dialog is open. */
export function NewVersion() {
  const state = useSyncExternalStore(versions.subscribe, versions.state);
  const [later, setLater] = useState(false);
  useEffect(() => void versions.watch(), []);
  if (!state || later) return null;
  return (
    <div
      role="status"
      className="fixed right-2 bottom-18 left-2 z-20 flex flex-wrap items-center gap-2 rounded-md border border-ink bg-sheet p-2 shadow-lg sm:left-auto lg:bottom-4"
    >
      <p className="px-1">
        {state === 'ready'
          ? 'A new version of Inventario is ready.'
          : 'A new version is in use in another tab.'}
      </p>
      <Button icon={RefreshCw} onClick={() => versions.use()}>
        Use it now
      </Button>
      <Button kind="quiet" onClick={() => setLater(true)}>
        Later
      </Button>
    </div>
  );
}
