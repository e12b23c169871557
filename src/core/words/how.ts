/** How each figure is computed, in two sentences and its formula, and what it rests on (docs/model.md has all of it). */

export const howKeys = [
  'target',
  'distance',
  'odds',
  'zone',
  'light',
  'background',
  'sharpness',
  'viewing',
  'lineUp',
  'fixes',
  'landings',
  'cost',
  'bag',
  'alike',
  'eyes',
  'plane',
  'planes',
  'honesty',
  'bench',
  'field',
  'spots',
  'drills',
  'judge',
  'mode',
  'guess',
  'fortnight',
  'edges'
] as const;
export type HowKey = (typeof howKeys)[number];

export interface Explanation {
  readonly title: string;
  /** Two plain sentences at most. */
  readonly text: string;
  readonly formula?: string;
  /** Published, common practice, or ours. */
  readonly source: string;
}

export const how: Readonly<Record<HowKey, Explanation>> = {
  target: {
    title: 'Whose eye, and the aperture',
    text: 'Every eye that must be sharp is tried at every aperture, and the best keeper rate wins; within three points, the nearer eye in reach of a good AF point. The aperture is the one your style wants among those that meet every goal.',
    source: 'Sharpness and keeper rate as explained there; the order among equals is common practice, no source.'
  },
  distance: {
    title: 'Where to stand',
    text: 'The distance that gives your framing, from the entrance pupil, inside the lens near its front.',
    formula: 'distance = focal length × (framed height ÷ sensor height + 1 ÷ pupil magnification)',
    source: 'Thin lens with pupil magnification: Kingslake, Optics in Photography; Ray, Applied Photographic Optics.'
  },
  odds: {
    title: 'Keeper rate',
    text: 'The chance that one frame has every must-be-sharp face sharp, with AF scatter, your sway and theirs. Blinks count only in how many frames to shoot.',
    formula: 'n frames: 1 − (1 − rate)ⁿ reaches 95%',
    source:
      'Integral checked against Monte Carlo. The scatter is our estimate, under Settings; blinks: Svenson and Barnes 2006.'
  },
  zone: {
    title: 'Depth of field',
    text: 'It ends where the blur disc grows to the acceptable blur (circle of confusion, C), once diffraction, the lens and the pixels have used their part.',
    formula: '1/near, 1/far = (1 ± k ÷ pupil magnification)/s ± k/f, with k = C × N/f',
    source: 'Conrad 2006, Depth of Field in Depth; Ray, Applied Photographic Optics.'
  },
  light: {
    title: 'Shutter and ISO',
    text: 'The shutter slows down as far as you can hand-hold and they keep still; then ISO goes up to your limit. Focused close, a lens loses light.',
    formula: 'EV = log₂(N²/t), less what the ISO gives',
    source:
      'Exif (CIPA DC-008), ISO 2720; sunny 16. How long people keep still: common practice, no source. Bellows factor: Ray.'
  },
  background: {
    title: 'Background blur',
    text: 'How large a point of the background becomes, measured there: details smaller than this disappear. Blurred away is as large as the detail, just hinted a sixth to a half of it, recognisable is sharp.',
    formula: 'b = A × |z − s|/s, with A the diameter of the pupil',
    source: 'Merklinger 1990, The Ins and Outs of Focus; the sixth and the half are ours.'
  },
  sharpness: {
    title: 'How sharp a face is',
    text: 'The blur of focus, diffraction, the lens, the pixels and movement together, against the acceptable blur: up to 1 is sharp, up to 1.6 a touch soft.',
    formula: 'total² = the sum of their squares, each a disc of the same contrast at half',
    source:
      'MTF50 of a disc: Hopkins 1955; of diffraction: Goodman, Introduction to Fourier Optics. Lens curves are our estimate where none are measured.'
  },
  viewing: {
    title: 'Acceptable blur',
    text: 'A standard print allows 0.030 mm on full frame, a close look half of that, in proportion to the sensor’s diagonal. Otherwise it is what an eye resolves from where the print or screen is viewed: 0.8 mrad, or one arc minute for critical viewing.',
    source: 'Kingslake, Optics in Photography; 0.2 mm at 25 cm is common practice.'
  },
  lineUp: {
    title: 'Every lens at the same framing',
    text: 'Each lens stands where it frames the same height and is planned again there. Noses look larger than ears, the nearer you stand.',
    formula: 'nose ÷ ear = 1 + 125 mm ÷ distance',
    source: 'Central projection; under about 1 m it shows: common practice, no source.'
  },
  fixes: {
    title: 'Fixes',
    text: 'Each kind of change is tried in growing amounts, as far as the space allows, and planned again in full. The smallest that meets every goal is shown.',
    source: 'The plan itself; efforts in minutes are our estimate.'
  },
  landings: {
    title: 'Where focus would land',
    text: 'Where focus lands in 100 frames at this aperture, by focusing method. Each surface under the AF area attracts focus by its share of the area and its contrast, near ones more where the camera may choose.',
    source:
      'A model of ours, held to: left to choose, a camera is wrong a quarter to a third of the time (common practice).'
  },
  cost: {
    title: 'What the day costs',
    text: 'A lens change costs a minute, a walk to another place four. The better order is the best single swap or move that breaks no fixed time.',
    source: 'Common practice, no source.'
  },
  bag: {
    title: 'The smallest bag',
    text: 'Every body and lens that meets the goals of each must-have setup at the same framing, with room to stand. The fewest that cover all of them; of equals, the one closest to your plan.',
    source: 'Exact search (branch and bound), checked against trying every bag.'
  },
  alike: {
    title: 'How alike setups are',
    text: 'Two are alike when distance and size of head differ by less than 1.3 times and background blur by less than 1.5 times.',
    source: 'Our judgement, no source.'
  },
  eyes: {
    title: 'How sharp an eye is',
    text: 'Its fine detail against the same eye in its sharpest frame, else against sharp eyes as they usually are: the blur disc that explains the loss, over the acceptable one. Movement takes detail in one direction only; all faces of a frame decide it together.',
    source:
      'Transfer of a disc: Hopkins 1955. Ours otherwise, held against photographs and drawn eyes blurred by known discs (docs/model.md, section 12).'
  },
  plane: {
    title: 'Where focus landed',
    text: 'The plane of focus that best explains how blurred each face is; a side is named only above 95%. The plan, AF scatter, your sway and your Record say where each cause would put it, and how likely that is.',
    source: 'The blur of the plan, read backwards; how often each cause happens is our estimate.'
  },
  planes: {
    title: 'Where your focus lands',
    text: 'Each frame’s error is taken on the sensor, where it holds at every distance, and scaled to 2 m. Frames that landed on someone else, show movement or came without the rest of their series are left out.',
    source: 'Normal model with conjugate priors (Gelman et al., Bayesian Data Analysis), checked by simulation.'
  },
  honesty: {
    title: 'Predicted against real',
    text: 'The keeper rate predicted at the aperture of each frame, against whether everyone who must be was sharp; blinks are left out. The bars are Wilson’s interval.',
    formula: 'Brier score = mean of (prediction − outcome)²; less is better',
    source: 'Wilson 1927; Brier 1950.'
  },
  bench: {
    title: 'Where a lens focuses',
    text: 'The printed texture tells at each place how much the lens lets through, and so how far that place lies from the plane of focus. Frames together give front or back focus and scatter, on the sensor, so they hold at every distance.',
    source:
      'Blur by the thin lens; markers: Garrido-Jurado et al. 2016. Ours otherwise, held against simulated sheets of known error (docs/model.md, section 14).'
  },
  field: {
    title: 'Field curvature',
    text: 'Each edge’s blur grows with its distance from the curved surface of focus; one surface through all of them says where each place would be sharpest. Each page is left out in turn, and how far the answer moves is its range.',
    source:
      'Blur by the thin lens, jackknife (Quenouille, Tukey). Ours otherwise, held against simulated walls within 15%.'
  },
  spots: {
    title: 'Dust by aperture',
    text: 'A speck lies just before the sensor: at a wide aperture its shadow is spread thin, at a small one it shows. It shows where the middle of its shadow loses two per cent of the light.',
    source:
      'Geometry of the light’s cone; two per cent: chosen. Held against shadows drawn by the closed form of two discs.'
  },
  drills: {
    title: 'How a drill is measured',
    text: 'Each mark is compared with itself in its sharpest frame: what it lost is the disc that blurs it. How blurred all of them are says where the plane of focus lies, and on which side.',
    source:
      'Blur by the thin lens; frames go to steps by the Hungarian method. Ours otherwise, held against the simulated camera.'
  },
  judge: {
    title: 'The smallest error you see',
    text: 'The next pair is always shown where your threshold is believed to lie. The threshold is where three of four answers are right.',
    source:
      'QUEST: Watson and Pelli 1983; Weibull’s function. Intervals hold in nine of ten of 1,000 simulated observers.'
  },
  mode: {
    title: 'Which mode?',
    text: 'The scene is planned wide open with your choices and shot forty times by the simulated camera. A moment is kept when one of its frames has everyone who must be sharp, eyes open.',
    source: 'The model of the call, docs/model.md; how autofocus lands is ours, anchored to common practice.'
  },
  guess: {
    title: 'How a guess is scored',
    text: 'The answer is the call’s own. A range costs its width in stops, and twenty times whatever the answer lies outside it: guessing wider or narrower than you know never pays.',
    source: 'Interval score at nine in ten: Gneiting and Raftery 2007; shares with Wilson’s interval, 1927.'
  },
  fortnight: {
    title: 'Two weeks of practice',
    text: 'Each soft frame of your Record is put down to one cause. Drills for the costliest causes come most often, none on two days running; the last day repeats the first.',
    source: 'Days dealt like seats, by Webster’s quotients; what counts how much is ours.'
  },
  edges: {
    title: 'Sharpness at an aperture',
    text: 'The contrast a slanted edge keeps at each fineness; MTF50 is where half is left. Saved to the lens, the pixel’s own share is taken out, since the planner counts it apart.',
    source: 'Slanted edge after ISO 12233:2017, held against closed forms.'
  }
};
