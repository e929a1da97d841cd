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
}
