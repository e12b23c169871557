/** The screen of a setup shown round, on one's own picture: once, and again when asked. */
import { driver, type DriveStep } from 'driver.js';
import 'driver.js/dist/driver.css';
import './tour.css';

interface Stop {
  readonly testid: string;
  readonly title: string;
  readonly description: string;
}

const stops: readonly Stop[] = [
  {
    testid: 'call',
    title: 'The call',
    description:
      'The aperture, whose eye to focus on, where to stand, and your keeper rate: how many frames in 100 have every face that matters sharp. It updates as you change things. Click any part to see why.'
  },
  {
    testid: 'ladder',
    title: 'The Ladder',
    description: 'Every aperture your lens has, and what it does to each face and the background. Click one to use it.'
  },
  {
    testid: 'floor',
    title: 'The Floor',
    description:
      'A floor plan to scale. Drag people, camera and walls to where they really are. The blue band is the depth of field.'
  },
  {
    testid: 'finder',
    title: 'The Finder',
    description: 'A preview at this aperture, blur included. The Eye strip below shows the eyes that matter, close up.'
  },
  {
    testid: 'field-card',
    title: 'The field card',
    description: 'This setup on your phone: one screen, works offline. The Day lists all of them in order.'
  }
];

/** Shows what there is of it on this screen. */
export function showRound(): void {
  const steps = stops.flatMap(({ testid, title, description }): DriveStep[] => {
    const element = `[data-testid="${testid}"]`;
    return document.querySelector(element) ? [{ element, popover: { title, description } }] : [];
  });
  const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
  const tour = driver({
    steps,
    animate: !still,
    showProgress: true,
    progressText: '{{current}} of {{total}}',
    nextBtnText: 'Next',
    prevBtnText: 'Back',
    doneBtnText: 'Done',
    popoverClass: 'focalis-tour'
  });
  tour.drive();
}
