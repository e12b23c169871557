/** Which mode? Six short scenes: pick how to focus, and see how many moments you kept. */
import { defineDrill } from './kind';

export const mode = defineDrill({
  id: 'mode',
  title: 'Which mode?',
  purpose:
    'Six short scenes, never the same twice: pick how to focus, the simulated camera shoots, and you see how many moments you kept, and why.',
  minutes: 8,
  needs: [],
  practises: { elsewhere: 'first', moving: 'first' },
  figureText: (figure) => `kept ${Math.round(figure * 100)}% of the moments`
});
