import { useEffect } from 'react';

/**
 * The screen stays awake while this is shown, where the browser can; asked again when the page comes back.
 */
export function useStayAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let left = false;
    const ask = () => {
      if (document.visibilityState !== 'visible') return;
      // A phone on its last battery refuses: then the screen goes dark as it always did.
      navigator.wakeLock?.request('screen').then(
        (held) => {
          if (left) void held.release();
          else lock = held;
        },
        () => {},
      );
    };
    ask();
    document.addEventListener('visibilitychange', ask);
    return () => {
      left = true;
      document.removeEventListener('visibilitychange', ask);
      void lock?.release();
    };
  }, []);
}
