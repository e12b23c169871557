/** How each figure is computed, in two or three sentences, and what it rests on (docs/model.md has all of it). */

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
  readonly text: string;
  /** Published, common practice, or ours. */
  readonly source: string;
}

export const how: Readonly<Record<HowKey, Explanation>> = {
  target: {
    title: 'Whose eye, and the aperture',
    text: 'Every eye that must be sharp is tried at every aperture; the one with the best keeper rate is chosen. Of rates within three points: the nearer eye, in reach of a good AF point, near the centre. The aperture is the one your style wants among those that keep the faces sharp and meet every goal for the background.',
    source: 'Sharpness and keeper rate as explained below; the order among equals is common practice, no source.'
  },
  distance: {
    title: 'Where to stand',
    text: 'From the framing: distance = focal length × (framed height ÷ sensor height + 1 ÷ pupil magnification). It is measured from the entrance pupil, inside the lens near its front.',
    source: 'Thin lens with pupil magnification: Kingslake, Optics in Photography; Ray, Applied Photographic Optics.'
  },
  odds: {
    title: 'Keeper rate',
    text: 'The chance that one frame has every must-be-sharp face sharp. AF scatter is a normal distribution, by focus method or from your Record; your sway and theirs move the plane of focus and the people before the shutter opens. Blinks are added only when counting how many frames to shoot: 1 − (1 − rate)ⁿ reaches 95%.',
    source:
      'Integral checked against Monte Carlo. The scatter is our estimate, under Settings; blinks: Svenson and Barnes 2006.'
  },
  zone: {
    title: 'Depth of field',
    text: '1/near and 1/far = (1 ± k/pupil magnification)/s ± k/f with k = C × N/f: where the blur disc on the sensor grows to the circle of confusion, C, once diffraction, the lens and the pixels have used their part.',
    source: 'Conrad 2006, Depth of Field in Depth; Ray, Applied Photographic Optics.'
  },
  light: {
    title: 'Shutter and ISO',
    text: 'EV = log₂(N²/t), less what the ISO gives. The shutter slows down as far as you can hand-hold and they keep still, then ISO goes up to your limit. Focused close, a lens loses light.',
    source:
      'Exif (CIPA DC-008), ISO 2720; sunny 16. How long people keep still: common practice, no source. Bellows factor: Ray.'
  },
  background: {
    title: 'Background blur',
    text: 'Blur at a distance z, measured there: b = A × |z − s|/s, A the diameter of the pupil. Details smaller than b disappear. To blur away, b must reach the size of the detail; to be just hinted, a sixth to a half of it; to stay recognisable, it must be sharp.',
    source: 'Merklinger 1990, The Ins and Outs of Focus; the sixth and the half are ours.'
  },
  sharpness: {
    title: 'How sharp a face is',
    text: 'Blur discs of focus, diffraction, the lens, the pixels and movement, each with the same contrast at half, are added as squares and compared with the circle of confusion: up to 1 is sharp, up to 1.6 a touch soft.',
    source:
      'MTF50 of a disc: Hopkins 1955; of diffraction: Goodman, Introduction to Fourier Optics. Lens curves are our estimate where none are measured.'
  },
  viewing: {
    title: 'Acceptable blur',
    text: 'The usual standard is 0.030 mm on full frame, in proportion to the sensor’s diagonal. Otherwise it is what an eye resolves on the print or screen from where it is viewed: 0.8 mrad, or one arc minute for critical viewing.',
    source: 'Kingslake, Optics in Photography; 0.2 mm at 25 cm is common practice.'
  },
  lineUp: {
    title: 'Every lens at the same framing',
    text: 'Each lens stands where it frames the same height, aimed at the same group, and is planned again there. How much larger noses look than ears: 1 + 125 mm/distance.',
    source: 'Central projection; under about 1 m it shows: common practice, no source.'
  },
  fixes: {
    title: 'Fixes',
    text: 'Each kind of change is tried in growing amounts up to what the space allows, and planned again in full; the smallest that meets every goal is shown, rounded up to a practical step.',
    source: 'The plan itself; efforts in minutes are our estimate.'
  },
  landings: {
    title: 'Where focus would land',
    text: 'What lies under the focus area is found by lines through the lens; each surface attracts AF by its share of the area and its contrast, near ones more where the camera may choose. Sharp: how many of a hundred frames have every face sharp from there.',
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
    text: 'For each must-have setup, every body and lens that meets its goals at the same framing with room to stand. The fewest items that cover all of them are searched exactly; of equals, the one closest to your plan.',
    source: 'Exact search (branch and bound), checked against trying every bag.'
  },
  alike: {
    title: 'How alike setups are',
    text: 'Two are alike when distance and size of head differ by less than 1.3 times and background blur by less than 1.5 times.',
    source: 'Our judgement, no source.'
  },
  eyes: {
    title: 'How sharp an eye is',
    text: 'The detail about the iris is sorted by fineness and held against the same eye in its sharpest frame, else against sharp eyes as they usually are: a disc of blur takes the fine before the coarse. Its diameter over what the setup allows is the number. A movement takes detail in one direction only. Both eyes of a face, and all faces of a frame, decide together whether something moved.',
    source:
      'Transfer of a disc: Hopkins 1955. Ours otherwise, held against photographs and drawn eyes blurred by known discs (docs/model.md, section 12).'
  },
  plane: {
    title: 'Where focus landed',
    text: 'Every possible plane of focus gives each face a blur; the one that matches what was measured is the likeliest; the sharpest spot of the frame counts too. A side is named only above 95%, and only where the measurement itself decides it. What the plan knows (someone else under the point, AF scatter, your sway, your Record) says where each cause would put it, and how likely.',
    source: 'The blur of the plan, read backwards; how often each cause happens is our estimate.'
  },
  planes: {
    title: 'Where your focus lands',
    text: 'The error of each frame is taken on the sensor, so that it holds at every distance, and scaled to 2 m. Front or back focus and scatter are learned together with a prior worth eight frames; frames that landed on someone else, show movement or came without the rest of their series are left out. Ranges are 90% ranges.',
    source: 'Normal model with conjugate priors (Gelman et al., Bayesian Data Analysis), checked by simulation.'
  },
  honesty: {
    title: 'Predicted against real',
    text: 'The keeper rate predicted at the aperture a frame was shot with, when it was first measured, against whether everyone who must be was sharp; blinks are left out. The bars are Wilson’s interval. The Brier score is the mean square of prediction less outcome.',
    source: 'Wilson 1927; Brier 1950.'
  },
  bench: {
    title: 'Where a lens focuses',
    text: 'Markers tell where both halves lie. Each place of the texture is held against what is printed there: how much of it the lens lets through says how far it lies from the plane of focus. One curve through all places, before the plane and behind it, says where that is, against the eye. Frames together give front or back focus and scatter on the sensor, so that they hold at every distance.',
    source:
      'Blur by the thin lens; markers: Garrido-Jurado et al. 2016. Ours otherwise, held against simulated sheets of known error (docs/model.md, section 14).'
  },
  field: {
    title: 'Field curvature',
    text: 'Each edge of each frame has a blur that grows with its distance from the curved surface of focus. One surface through all of them, flat in the middle and bending with the square of the angle off the axis, says where each place would be sharpest. Each page is left out in turn, and how far the answer moves makes the interval.',
    source:
      'Blur by the thin lens, jackknife (Quenouille, Tukey). Ours otherwise, held against simulated walls within 15%.'
  },
  spots: {
    title: 'Dust and stops',
    text: 'A speck lies a little before the sensor. The light it takes away is its own area at every stop; in the wide cone of a fast stop it is spread thin, in the narrow one of a small stop it is seen. It shows where two per cent of the light are lost in the middle of its shadow.',
    source:
      'Geometry of the light’s cone; two per cent: chosen. Held against shadows drawn by the closed form of two discs.'
  },
  drills: {
    title: 'How a drill is measured',
    text: 'Each mark is found by its code and held against itself in the frame in which it is sharpest: what its spectrum lost is the disc that blurs it. How blurred all of them are, at distances told by their size, says where the plane of focus lies, and on which side. Frames go to steps by aperture, by where the plane or the object lies, and by the order they were taken in; the latest of several counts.',
    source:
      'Blur by the thin lens; assignment by the Hungarian method. Ours otherwise, held against the simulated camera.'
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
    text: 'The answer is the call’s own: the widest aperture that keeps every face sharp, and the background blur there. A range costs its width in stops, and twenty times whatever the answer lies outside it: guessing wider or narrower than you know never pays. A blur twice as large counts as two stops.',
    source: 'Interval score at nine in ten: Gneiting and Raftery 2007; shares with Wilson’s interval, 1927.'
  },
  fortnight: {
    title: 'Two weeks of practice',
    text: 'Each soft frame of your Record is put down to one cause. Drills for the costliest causes come most often, none on two days running; the last day repeats the first.',
    source: 'Days dealt like seats, by Webster’s quotients; what counts how much is ours.'
  },
  edges: {
    title: 'Sharpness at an aperture',
    text: 'Each edge is laid out in quarters of a pixel across all its rows, and its derivative transformed: what is left of contrast at each fineness. MTF50 is where half is left. Written to the lens, the pixel’s own share is taken out, since the planner counts it apart.',
    source: 'Slanted edge after ISO 12233:2017, held against closed forms.'
  }
};
