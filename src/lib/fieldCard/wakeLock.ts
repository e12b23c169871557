/** Keeps the screen on while the field card is looked at, where the browser can; where it cannot, nothing is lost. */
export function keepScreenOn(): () => void {
  let held: WakeLockSentinel | undefined;
  let wanted = true;
  const ask = () => {
    if (!wanted || document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return;
    navigator.wakeLock.request('screen').then(
      (lock) => {
        if (wanted) held = lock;
        else void lock.release();
      },
      () => undefined
    );
  };
  ask();
  document.addEventListener('visibilitychange', ask);
  return () => {
    wanted = false;
    document.removeEventListener('visibilitychange', ask);
    void held?.release();
  };
}
