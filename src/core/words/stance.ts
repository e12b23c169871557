/** How one stands, in a word or two. */
import type { Camera } from '../setup/schema';

export const stancePhrase: Readonly<Record<Camera['stance'], string>> = {
  standing: '',
  braced: 'braced',
  kneeling: 'kneeling',
  monopod: 'on the monopod',
  tripod: 'on the tripod'
};
