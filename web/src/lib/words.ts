/** Words of the trade, each in a sentence: for the question marks beside headings, and for the help page. */
export const WORDS: Record<string, [string, string]> = {
  stop: ['Stop', 'A factor of two in light: one stop more is twice the light, one less is half.'],
  needed: [
    'Needed',
    'The line: the light that this picture needs. What lands right of it is in hand, left of it is short.',
  ],
  hand: [
    'In hand',
    'How many stops more a unit gives at full power than the picture needs; the dial takes them away.',
  ],
  guide: [
    'Guide number (GN)',
    'Distance times f-number for a right exposure, at full power. It means something only with its ISO, its unit of length and its coverage; here all are brought to ISO 100 and to what a 35 mm lens sees.',
  ],
  ws: [
    'Watt-seconds (Ws)',
    'Energy in the capacitor. It says nothing of the reflector, so light guessed from it is rough.',
  ],
  hss: [
    'High-speed sync (HSS)',
    'The flash burns as a train while a slit passes over the frame, so that any shutter time can be used; it costs about two stops at once and one more for each stop of shutter.',
  ],
  sync: [
    'Sync speed',
    'The shortest time at which the whole frame is open at once, so that one flash reaches all of it.',
  ],
  nd: [
    'ND',
    'A grey filter: it takes as much from the flash as from the ambient, so the balance stays at any aperture.',
  ],
  t1: [
    't.1',
    'How long the flash is brighter than a tenth of its peak: what freezes motion. t.5 is the half of its peak, and about a third as long.',
  ],
  recycle: ['Recycle time', 'From one flash until the next one can have the same power.'],
  method: [
    'Methods',
    'Ways to take this picture: each meets the background as it is asked, at a price in light, time or effort.',
  ],
  key: [
    'Key, fill, rim',
    'The main light; the light that lifts its shadows; the light from behind that draws an edge.',
  ],
  modifier: [
    'Modifier',
    'What stands before a flash. Its loss counts from the unit’s own standard reflector; its layers come off.',
  ],
  sd: [
    '±',
    'One standard deviation: in two cases of three the truth lies inside. A reading of your own makes it small.',
  ],
  typical: [
    'Typical',
    'A figure of the class, not of your own unit, until you put a better one in its place.',
  ],
  coverage: [
    'Coverage',
    'Every unit against every light of every setup: which of them reach, each in the best method there.',
  ],
  map: ['Map', 'Two measures against each other. On the line stand those that none beats in both at once.'],
  brief: [
    'Brief',
    'What was asked for: who and how many, what must be delivered, by when, and what nobody has said yet.',
  ],
  session: [
    'Session',
    'A stretch of the day with one setup: so many people, so many frames and minutes each.',
  ],
  roster: ['Roster', 'Who is photographed when, in the order of the day; what is done is ticked off.'],
  setup: ['Setup', 'One picture as it is to be taken: place, light, camera, lights, and what it asks for.'],
  kit_choice: [
    'Which kit?',
    'The least weight, money or outlay with which every setup of the job can be taken, worked out over all units you may use.',
  ],
  channel: [
    'Channel and group',
    'Which lights listen to which transmitter, and what would keep one of them from firing.',
  ],
  card: ['Card', 'All of one setup on a sheet that needs neither power nor network.'],
  phone: [
    'On the phone',
    'The same data, opened on another device in the same network by a link that is only for it.',
  ],
  request: [
    'Request',
    'What the lights of this job ask of any unit, in figures and classes, to hire or to buy from.',
  ],
  on_set: [
    'On the set',
    'What to do now, one step at a time, and where what really happened is written down.',
  ],
  test_frame: [
    'Test frame',
    'A frame of a grey card, or of the face: how far its patch is from where it should be, in stops.',
  ],
  planned_found: [
    'Planned against found',
    'What the plan said, beside what meter or frame said; the difference is what there is to learn.',
  ],
  learned: [
    'Learned',
    'What your own readings say of a unit, a modifier, a place or a filter, which from then on counts in the plan.',
  ],
  measure_next: [
    'Measure next',
    'The reading that would take the most doubt from the pictures planned, and what it would bring.',
  ],
  entry: ['Entry', 'One reading, frame, swap or note, with the time and the kit as they then stood.'],
  ambient: [
    'Ambient',
    'The light that is there without a flash: sun, sky, lamps. Found by a condition, by the sun’s place, or by a meter.',
  ],
  look: ['Look', 'How bright, how sharp and how wide: aperture, background, ISO, lens and subject.'],
  stage: ['Place', 'Where subject, walls, ceiling and lights stand, as far as it matters to the light.'],
  motion: ['Motion', 'What moves and how fast, and how much blur the picture allows.'],
  camera: [
    'Camera',
    'Body, lens and filters: what they can do sets the ways in which the picture can be taken.',
  ],
  side: ['Side by side', 'Up to five units, figure by figure, and over dial and shutter.'],
  frame: ['The frame', 'How much the lens sees at the subject, and which lights or stands are in it.'],
  above: [
    'From above',
    'The set to scale: camera, subject, lights, and how far the light of one in hand is good.',
  ],
  all_lights: ['All lights', 'What each light gives at the subject, and where all together land.'],
}
