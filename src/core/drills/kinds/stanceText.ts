import type { Camera } from '../../setup/schema';

/** "It counts wherever a call has you on a monopod." */
export const inUseWhere = (stance: Camera['stance']): string =>
  `It counts wherever a call has you ${stance === 'monopod' || stance === 'tripod' ? 'on a ' : ''}${stance}.`;
