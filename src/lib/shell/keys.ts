/** The keys, for the help and for the screen. */
export const keysHelp = [
  { keys: ['←', '→'], does: 'one stop wider, one stop narrower' },
  { keys: ['[', ']'], does: 'previous setup, next setup' },
  { keys: ['1', '…', '9'], does: 'the tabs, from Fixes to Camera' },
  { keys: ['F'], does: 'focus on the selected person; again for the best eye' },
  { keys: ['H'], does: 'eyes at 100%' },
  { keys: ['C'], does: 'field card' },
  { keys: ['Tab'], does: 'Floor: next person, background or camera' },
  { keys: ['←', '→', '↑', '↓'], does: 'on the Floor: move it; with Shift ten times as far' },
  { keys: [',', '.'], does: 'on the Floor: turn the head; with Shift the shoulders' },
  { keys: ['Shift'], does: 'on the Floor: drag finely; dragging empty floor selects several' },
  { keys: ['Enter', 'M', 'N'], does: 'Frames: keep, maybe, reject; press again to clear' },
  { keys: ['↑', '↓', 'O'], does: 'Frames: previous frame, next frame, open' },
  { keys: ['B', 'Shift B', 'F'], does: 'Frames: mark to compare, show side by side, flip' },
  { keys: ['Ctrl Z'], does: 'undo, up to 200 steps; with Shift redo' },
  { keys: ['?'], does: 'this list' }
] as const;

/** Whether a key belongs to what has the focus rather than to the screen. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target;
  if (!(target instanceof HTMLElement)) return false;
  return (
    target.closest(
      'input:not([type=radio], [type=checkbox]), select, textarea, dialog, [role=menu], [contenteditable]'
    ) !== null
  );
}

/** A key of the screen: not while somebody types or a dialog is open; a button that has the focus takes Enter for itself. */
export const screenKey =
  (action: () => unknown) =>
  (event: KeyboardEvent): void => {
    if (isTyping(event) || event.defaultPrevented || document.querySelector('dialog[open]')) return;
    const { key, target } = event;
    if (key === 'Enter' && target instanceof HTMLElement && target.closest('button, a')) return;
    event.preventDefault();
    void action();
  };

/** Whether arrow keys mean something to what has the focus. */
export function usesArrows(event: KeyboardEvent): boolean {
  const target = event.target;
  return target instanceof HTMLElement && (isTyping(event) || target.closest('input[type=radio], [role=tab]') !== null);
}
