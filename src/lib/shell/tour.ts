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
      'Whose eye to focus on, the stop, where to stand, and the odds that every face that matters is sharp. It changes with everything you change.'
  },
  {
    testid: 'ladder',
    title: 'Every stop',
    description: 'What each stop makes of faces and background. Press one to take it instead.'
  },
  {
    testid: 'floor',
    title: 'The floor, to scale',
    description: 'Drag people, the camera and walls where they really are; the band is what will be sharp.'
  },
  {
    testid: 'finder',
    title: 'What the lens will draw',
    description: 'The picture as it would come out, blur and all. Below it the eyes at 100 %.'
  },
  {
    testid: 'field-card',
    title: 'Take it along',
    description: 'One setup a screen on your phone, also without a network. The Day has all of them in order.'
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
