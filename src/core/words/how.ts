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
    title: 'Whose eye, and the stop',
    text: 'Every eye that must be sharp is tried at every stop; the one with the best odds is taken. Of odds within three points, the nearer eye, in reach of a good focus point, near the middle. The stop is the one your style wants among those that hold the faces and grant every background.',
    source: 'Sharpness and odds as they are computed here; the order among equals is common practice, no source.'
  },
  distance: {
    title: 'Where to stand',
    text: 'From the framing: distance = focal length × (framed height ÷ sensor height + 1 ÷ pupil magnification). It is measured from the entrance pupil, inside the lens near its front.',
    source: 'Thin lens with pupil magnification: Kingslake, Optics in Photography; Ray, Applied Photographic Optics.'
  },
  odds: {
    title: 'Keeper odds',
    text: 'Where focus lands is taken as normal behind the lens, with the spread of the way of focusing, or what your record says of this lens; your sway and theirs move the plane and the people before release. The odds are the chance that every face that must be sharp is, in one frame, with all eyes open. Frames: 1 − (1 − odds)ⁿ reaches 95 %.',
    source:
      'Integral checked against Monte Carlo. The spreads are from memory, under Settings; blinks: Svenson and Barnes 2006.'
  },
  zone: {
    title: 'The sharp zone',
    text: '1/near and 1/far = (1 ± k/pupil magnification)/s ± k/f with k = C × N/f: where the blur disc on the sensor grows to what is allowed, C, once diffraction, the lens and the pixels have taken their part.',
    source: 'Conrad 2006, Depth of Field in Depth; Ray, Applied Photographic Optics.'
  },
  light: {
    title: 'Shutter and ISO',
    text: 'EV = log₂(N²/t), less what the ISO gives. The shutter takes up the light down to the longest time that you and they hold still for, then ISO up to the body’s limit. Drawn out for close distances a lens loses light.',
    source:
      'Exif (CIPA DC-008), ISO 2720; sunny 16. Times people hold still for: common practice, no source. Bellows factor: Ray.'
  },
  background: {
    title: 'Detail lost',
    text: 'Blur at a distance z, measured there: b = A × |z − s|/s, A the diameter of the pupil. Detail smaller than b is lost. To vanish, b must reach the size of the detail; to be hinted, a sixth to a half of it; to stay, it must be sharp.',
    source: 'Merklinger 1990, The Ins and Outs of Focus; the sixth and the half are ours.'
  },
  sharpness: {
    title: 'How sharp a face is',
    text: 'Blur discs of focus, diffraction, the lens, the pixels and movement, each with the same contrast at half, are added as squares and set against the disc allowed: up to 1 is sharp, up to 1.6 a touch soft. Odds stand below.',
    source:
      'MTF50 of a disc: Hopkins 1955; of diffraction: Goodman, Introduction to Fourier Optics. Lens curves from memory where none are measured.'
  },
  viewing: {
    title: 'Blur allowed',
    text: 'The usual standard is 0.030 mm on full frame, in proportion to the sensor’s diagonal. Otherwise it is what an eye tells apart on the print or screen from where it is seen: 0.8 mrad, or one arc minute for a sharp eye.',
    source: 'Kingslake, Optics in Photography; 0.2 mm at 25 cm is common practice.'
  },
  lineUp: {
    title: 'Every lens at the same framing',
    text: 'Each lens stands where it frames the same height, aimed at the same group, and is planned anew there. How much larger noses look than ears: 1 + 125 mm/distance.',
    source: 'Central projection; under about 1 m it shows: common practice, no source.'
  },
  fixes: {
    title: 'Fixes',
    text: 'Each kind of change is tried in growing amounts up to what the place allows, and planned again in full; the least that grants every wish is shown, rounded up to a practical step.',
    source: 'The plan itself; efforts in minutes are from memory.'
  },
  landings: {
    title: 'Where focus would land',
    text: 'What lies under the focus area is found by lines through the lens; each surface draws focus by its share of the area and its contrast, near ones more where the camera may choose. Sharp is the share of a hundred frames whose faces hold from there.',
    source:
      'A model of ours, held to: left to itself a camera is wrong a quarter to a third of the time (common practice).'
  },
  cost: {
    title: 'What the day costs',
    text: 'A lens change counts when a body’s lens becomes another: a minute each. A walk to another place takes four. The better order is the best single swap or move of all that breaks no fixed time.',
    source: 'Common practice, no source.'
  },
  bag: {
    title: 'The smallest bag',
    text: 'For each must-have, every body and lens that would grant its wishes at the same framing with room to stand. The fewest things that serve all of them are searched exactly; of equals, the one nearest to what is planned.',
    source: 'Exact search (branch and bound), checked against trying every bag.'
  },
  alike: {
    title: 'How alike pictures are',
    text: 'Two are alike when distance and size of head differ by less than 1.3 times and background blur by less than 1.5 times.',
    source: 'Our judgement, no source.'
  },
  eyes: {
    title: 'How sharp an eye is',
    text: 'The detail about the iris is sorted by fineness and held against the same eye in its sharpest frame, else against sharp eyes as they usually are: a disc of blur takes the fine before the coarse. Its diameter over what the setup allows is the number. A movement takes detail in one direction only. Where nothing decides it, nothing is said.',
    source:
      'Transfer of a disc: Hopkins 1955. Ours otherwise, held against photographs and drawn eyes blurred by known discs (docs/model.md, section 12).'
  },
  plane: {
    title: 'Where the plane fell',
    text: 'Every plane there may be gives each face a disc; the one that gives those measured is the likeliest; the sharpest place of the frame counts beside them. A side is named only above 95 %, and only where the measurement itself decides it. What the plan knows (somebody else under the point, the spread of focusing, your sway, your record) says where each cause would put it, and how likely.',
    source: 'The blur of the plan, read backwards; how often each cause happens is from memory.'
  },
  planes: {
    title: 'Where your planes fall',
    text: 'The error of each frame is taken on the sensor, so that it holds at every distance, and brought to two metres. Bias and spread are learned together with a prior worth eight frames; what landed on somebody else, moved or came without its other frames is left out. Intervals hold nine times in ten.',
    source: 'Normal model with conjugate priors (Gelman et al., Bayesian Data Analysis), checked by simulation.'
  },
  honesty: {
    title: 'Honest odds',
    text: 'What was promised at the stop a frame was shot with, when it was first measured, against whether everybody who must be was sharp; who blinks is left out. The bars are Wilson’s interval. The Brier score is the mean square of promise less outcome.',
    source: 'Wilson 1927; Brier 1950.'
  },
  bench: {
    title: 'Where a lens focuses',
    text: 'Markers tell where both halves lie. Each place of the texture is held against what is printed there: how much of it the lens lets through says how far it lies from the plane of focus. One curve through all places, before the plane and behind it, says where that is, against the eye. Frames together give bias and scatter on the sensor, so that they hold at every distance.',
    source:
      'Blur by the thin lens; markers: Garrido-Jurado et al. 2016. Ours otherwise, held against simulated sheets of known error (docs/model.md, section 14).'
  },
  field: {
    title: 'How the field bends',
    text: 'Each edge of each frame has a blur that grows with its distance from the surface of sharp focus. One surface through all of them, flat in the middle and bending with the square of the angle off the axis, says where each place would be sharpest. Each page is left out in turn, and how far the answer moves makes the interval.',
    source:
      'Blur by the thin lens, jackknife (Quenouille, Tukey). Ours otherwise, held against simulated walls within 15 %.'
  },
  spots: {
    title: 'Dust and stops',
    text: 'A speck lies a little before the sensor. The light it takes away is its own area at every stop; in the wide cone of a fast stop it is spread thin, in the narrow one of a small stop it is seen. It shows where two per cent of the light are lost in the middle of its shadow.',
    source:
      'Geometry of the light’s cone; two per cent: chosen. Held against shadows drawn by the closed form of two discs.'
  },
  drills: {
    title: 'How a drill is measured',
    text: 'Each mark is found by its code and held against itself in the frame in which it is sharpest: what its spectrum lost is the disc that blurs it. How blurred all of them are, at distances told by their size, says where the plane lies, and on which side. Frames go to steps by stop, by where the plane or the thing lies, and by the order they were taken in; the latest of several counts.',
    source:
      'Blur by the thin lens; assignment by the Hungarian method. Ours otherwise, held against the simulated camera.'
  },
  judge: {
    title: 'The smallest error you see',
    text: 'After each answer every threshold is as likely as the answers so far make it, and the next pair is put where yours is believed to lie. The threshold is where three of four answers are right. The slope is open, and averaged over.',
    source:
      'QUEST: Watson and Pelli 1983; Weibull’s function. Intervals hold in nine of ten of 1,000 simulated observers.'
  },
  mode: {
    title: 'Which mode?',
    text: 'The scene is planned wide open with what you picked, and the simulated camera takes it forty times: where focus lands, how far it falls short, who moves and who blinks are thrown by the same figures the odds rest on. A moment is kept when one of its frames has everybody who must be sharp, eyes open. The best way is the one with the best odds of all there are.',
    source: 'The model of the call, docs/model.md; how autofocus lands is ours, anchored to common practice.'
  },
  guess: {
    title: 'How a guess is scored',
    text: 'The answer is the call’s own: the first stop that holds everybody’s faces, and the background’s blur disc there. A range costs its width in stops, and twenty times whatever the answer lies outside it: nobody gains by saying more, or less, than they know. A blur twice as large counts as two stops.',
    source: 'Interval score at nine in ten: Gneiting and Raftery 2007; shares with Wilson’s interval, 1927.'
  },
  fortnight: {
    title: 'Two weeks of practice',
    text: 'Each soft frame of the record is put down to one thing: focus went elsewhere, the camera was turned, you waited, somebody moved, focus fell short, or they stood deeper than it was sharp. Drills that practise what cost most come most often, those never done sooner, none on two days running; the last day is the first one’s again.',
    source: 'Days dealt like seats, by Webster’s quotients; what counts how much is ours.'
  },
  edges: {
    title: 'Sharpness at a stop',
    text: 'Each edge is laid out in quarters of a pixel across all its rows, and its derivative transformed: what is left of contrast at each fineness. MTF50 is where half is left. Written to the lens, the pixel’s own share is taken out, since the planner counts it apart.',
    source: 'Slanted edge after ISO 12233:2017, held against closed forms.'
  }
};
