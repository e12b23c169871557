/** The keys, for the help and for the screen. */
export const keysHelp = [
  { keys: ['←', '→'], does: 'stop wider, stop narrower' },
  { keys: ['[', ']'], does: 'setup before, setup after' },
  { keys: ['1', '…', '9'], does: 'the tabs, from Fixes to Camera' },
  { keys: ['F'], does: 'focus on the selected person, or on the best eye again' },
  { keys: ['Z'], does: 'look at 100 %' },
  { keys: ['C'], does: 'field card' },
  { keys: ['Tab'], does: 'through the Floor: each person, background and the camera' },
  { keys: ['←', '→', '↑', '↓'], does: 'on the Floor: move it; with Shift ten times as far' },
  { keys: [',', '.'], does: 'on the Floor: turn the head; with Shift the shoulders' },
  { keys: ['Shift'], does: 'on the Floor: drag finely; dragging empty floor selects several' },
  { keys: ['Ctrl Z'], does: 'undo; with Shift redo' },
  { keys: ['?'], does: 'this list' }
] as const;

/** Whether a key belongs to what has the focus rather than to the screen. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target;
  if (!(target instanceof HTMLElement)) return false;
  return target.closest('input:not([type=radio]), select, textarea, dialog, [role=menu], [contenteditable]') !== null;
}

/** Whether arrow keys mean something to what has the focus. */
export function usesArrows(event: KeyboardEvent): boolean {
  const target = event.target;
  return target instanceof HTMLElement && (isTyping(event) || target.closest('input[type=radio], [role=tab]') !== null);
}
