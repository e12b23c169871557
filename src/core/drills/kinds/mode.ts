/** Which mode? Six short scenes: pick how to focus, and see how many moments you kept. */
import { defineDrill } from './kind';

export const mode = defineDrill({
  id: 'mode',
  title: 'Which mode?',
  purpose: 'Six short scenes: choose how to focus, see how many moments you keep.',
  minutes: 8,
  needs: [],
  practises: { elsewhere: 'first', moving: 'first' },
  figureText: (figure) => `kept ${Math.round(figure * 100)}% of the moments`
});
