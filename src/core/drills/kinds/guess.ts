/** Guess, then see: between which stops lies the first that holds everyone. */
import { defineDrill } from './kind';

export const guess = defineDrill({
  id: 'guess',
  title: 'Guess, then see',
  purpose:
    'A group is shown: say between which stops lies the first that holds everyone, and how large the background’s blur will be; then the call appears.',
  minutes: 8,
  needs: [],
  practises: { depth: 'second' },
  figureText: (figure) => `${figure.toFixed(1)} stops of doubt`
});
