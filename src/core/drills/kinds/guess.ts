/** Guess, then see: between which stops lies the first that holds everyone. */
import { defineDrill } from './kind';

export const guess = defineDrill({
  id: 'guess',
  title: 'Guess, then see',
  purpose: 'A group appears: guess its aperture and background blur before the call.',
  minutes: 8,
  needs: [],
  practises: { depth: 'second' },
  figureText: (figure) => `${figure.toFixed(1)} stops of doubt`
});
