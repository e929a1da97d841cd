/** The fields of units, modifiers, bodies and filters. */
import type { Field } from './fields'

export type KitKind =
  'units' | 'modifiers' | 'bodies' | 'lenses' | 'filters' | 'triggers' | 'batteries' | 'stands'

const words = (...keys: string[]): [unknown, string][] => keys.map((key) => [key, key.replaceAll('_', ' ')])
const weight: Field = { key: 'weight_g', label: 'Weight, g', kind: 'quantity', reads: 'weight' }
const head: Field = { key: 'head_g', label: 'Head alone, g', kind: 'quantity', reads: 'weight' }
const shoe: Field = { key: 'shoe', label: 'Shoe', kind: 'text', hint: 'in your own words; empty: any' }
const cells: Field = {
  key: 'cells',
  label: 'Cells',
  kind: 'choice',
  options: [[null, 'not said'], ...words('lithium', 'nimh', 'alkaline')],
}

const price: Field = { key: 'price', label: 'Price', kind: 'quantity', reads: 'money' }
const holding: Field = {
  key: 'holding',
  label: 'It is',
  kind: 'choice',
  options: [
    ['owned', 'owned'],
    ['hire', 'for hire'],
    ['wanted', 'wanted'],
  ],
}
const note: Field = { key: 'note', label: 'Note', kind: 'text', wide: true }

const claim: Field[] = [
  { key: 'guide_number', label: 'GN', kind: 'quantity', reads: 'number' },
  { key: 'unit', label: 'in', kind: 'choice', options: words('m', 'ft') },
  { key: 'iso', label: 'ISO', kind: 'quantity', reads: 'iso' },
  { key: 'zoom_mm', label: 'Zoom, mm', kind: 'quantity', reads: 'focal' },
  { key: 'coverage_deg', label: 'or coverage, °', kind: 'quantity', reads: 'degrees' },
  { key: 'reflector', label: 'Reflector', kind: 'text' },
  { key: 'measured', label: 'Measured by you', kind: 'check' },
]

const supply: Field[] = [
  {
    key: 'kind',
    label: 'Fed by',
    kind: 'choice',
    options: [
      ['aa', 'AA cells'],
      ['lithium', 'lithium pack'],
      ['external', 'external pack'],
      ['mains', 'mains'],
    ],
  },
  { key: 'name', label: 'Called', kind: 'text' },
  { key: 'recycle_full_s', label: 'Recycles after full power in, s', kind: 'quantity', reads: 'seconds' },
  { key: 'recycle_least_s', label: 'at best, s', kind: 'quantity', reads: 'seconds' },
  { key: 'full_flashes', label: 'Full flashes a charge', kind: 'quantity', reads: 'count' },
  { key: 'capacity_wh', label: 'or capacity, Wh', kind: 'quantity', reads: 'charge' },
  cells,
  { key: 'weight_g', label: 'One weighs, g', kind: 'quantity', reads: 'weight' },
  { key: 'price', label: 'One costs', kind: 'quantity', reads: 'money' },
  { key: 'charger_g', label: 'Its charger weighs, g', kind: 'quantity', reads: 'weight' },
  { key: 'charger_price', label: 'Its charger costs', kind: 'quantity', reads: 'money' },
]

const unit: Field[] = [
  { key: 'name', label: 'Name', kind: 'text' },
  {
    key: 'kind',
    label: 'Kind',
    kind: 'choice',
    options: words('shoe', 'pocket', 'monobloc', 'pack', 'built_in', 'ring'),
  },
  {
    key: 'claims',
    label: 'Guide numbers, with their whole basis',
    kind: 'rows',
    fields: claim,
    blank: 'Claim',
    add: 'Add a guide number',
  },
  { key: 'watt_seconds', label: 'Energy, Ws', kind: 'quantity', reads: 'energy' },
  {
    key: 'fold_supply',
    label: 'Recycling and power supply',
    kind: 'fold',
    fields: [
      {
        key: 'power_supplies',
        label: 'Power supplies, the usual one first',
        kind: 'rows',
        fields: supply,
        blank: 'PowerSupply',
        add: 'Add a power supply',
      },
    ],
  },
  {
    key: 'fold_dial',
    label: 'Dial, zoom and what it takes',
    kind: 'fold',
    fields: [
      {
        key: 'scale',
        label: 'The dial',
        kind: 'part',
        always: true,
        blank: 'PowerScale',
        fields: [
          {
            key: 'kind',
            label: 'Power is dialled as',
            kind: 'choice',
            options: [
              ['fraction', 'fractions'],
              ['number', 'stop numbers'],
              ['ws', 'watt-seconds'],
            ],
          },
          { key: 'lowest', label: 'Down to', kind: 'quantity', reads: 'power', hint: 'as in 1/128' },
          {
            key: 'step_stops',
            label: 'In steps of, stops',
            kind: 'quantity',
            reads: 'level',
            hint: 'as in 1/3',
          },
          { key: 'top_number', label: 'Number at full power', kind: 'quantity', reads: 'number' },
        ],
      },
      {
        key: 'zoom_min_mm',
        label: 'Widest zoom, mm',
        kind: 'quantity',
        reads: 'focal',
        only: ['shoe', 'pocket'],
      },
      {
        key: 'zoom_max_mm',
        label: 'Longest zoom, mm',
        kind: 'quantity',
        reads: 'focal',
        only: ['shoe', 'pocket'],
      },
      { key: 'takes_modifiers', label: 'Takes modifiers', kind: 'check' },
      { key: 'mount', label: 'Mount for modifiers', kind: 'text', hint: 'in your own words; empty: any' },
      {
        key: 'own_radio',
        label: 'A radio receiver of its own',
        kind: 'choice',
        options: [
          [null, 'not said'],
          [true, 'yes'],
          [false, 'no'],
        ],
      },
      { key: 'standby_w', label: 'Standing by it draws, W', kind: 'quantity', reads: 'number' },
      shoe,
    ],
  },
  {
    key: 'fold_light',
    label: 'High-speed sync and flash duration',
    kind: 'fold',
    fields: [
      {
        key: 'hss',
        label: 'High-speed sync',
        kind: 'part',
        blank: 'Hss',
        fields: [
          { key: 'extra_stops', label: 'Loss beyond geometry, stops', kind: 'quantity', reads: 'level' },
          { key: 'by_itself', label: 'Switches by itself, past sync only', kind: 'check' },
          { key: 'measured', label: 'Measured by you', kind: 'check' },
          {
            key: 'table',
            label: 'Or its own table of losses',
            kind: 'rows',
            fields: [
              { key: 'shutter_s', label: 'At', kind: 'quantity', reads: 'shutter', hint: 'as in 1/1000' },
              { key: 'loss_stops', label: 'Loss, stops', kind: 'quantity', reads: 'level' },
            ],
            blank: 'HssEntry',
            add: 'Add a time',
          },
          {
            key: 'travel_s',
            label: 'The table belongs to a body with a curtain travel of',
            kind: 'quantity',
            reads: 'shutter',
            hint: 'about its sync speed; 1/250 unless you know better',
          },
        ],
      },
      {
        key: 'flash_duration',
        label: 'Flash duration',
        kind: 'part',
        blank: 'FlashDuration',
        fields: [
          {
            key: 'shape',
            label: 'Pulse',
            kind: 'choice',
            options: [
              ['cut', 'cut: shorter as power drops'],
              ['tail', 'left to its slow tail'],
            ],
          },
          { key: 'measure', label: 'Given as', kind: 'choice', options: words('t.1', 't.5') },
          {
            key: 'table',
            label: 'By power',
            kind: 'rows',
            fields: [
              { key: 'power', label: 'At power', kind: 'quantity', reads: 'power', hint: 'as in 1/16' },
              {
                key: 'seconds',
                label: 'Lasts, s',
                kind: 'quantity',
                reads: 'duration',
                hint: 'as in 1/4000',
              },
            ],
            blank: 'DurationEntry',
            add: 'Add a power',
          },
        ],
      },
    ],
  },
  {
    key: 'fold_rest',
    label: 'Weight, price, how many, heat and the rest',
    kind: 'fold',
    fields: [
      holding,
      weight,
      { ...head, only: ['pack'] },
      { key: 'count', label: 'How many there are', kind: 'quantity', reads: 'count' },
      {
        key: 'group_how',
        label: 'How its group is set',
        kind: 'text',
        hint: 'in your own words; it stands on the cards',
      },
      price,
      note,
      {
        key: 'heat',
        label: 'Heat: how many full flashes in a row, then what rest',
        kind: 'part',
        blank: 'Heat',
        fields: [
          { key: 'full_flashes', label: 'Full flashes in a row', kind: 'quantity', reads: 'count' },
          { key: 'rest_s', label: 'Rest until cool, s', kind: 'quantity', reads: 'seconds' },
          { key: 'hss_times', label: 'Times as warm in HSS', kind: 'quantity', reads: 'number' },
        ],
      },
      { key: 'typical', label: 'Typical figures, not of this very one', kind: 'check' },
    ],
  },
]

const stabiliser: Field = {
  key: 'stabiliser_stops',
  label: 'Stabiliser, stops',
  kind: 'quantity',
  reads: 'number',
  hint: 'how much slower it lets you hold',
}

const body: Field[] = [
  { key: 'name', label: 'Name', kind: 'text' },
  {
    key: 'shutter',
    label: 'Shutter',
    kind: 'choice',
    options: [
      ['focal_plane', 'focal plane: two curtains'],
      ['leaf', 'leaf, in the lens'],
      ['global', 'global: all at once'],
    ],
  },
  { key: 'sync_s', label: 'Sync speed', kind: 'quantity', reads: 'shutter', hint: 'as in 1/250' },
  { key: 'top_speed_s', label: 'Top speed', kind: 'quantity', reads: 'shutter' },
  {
    key: 'radio_sync_s',
    label: 'Sync with the radio trigger',
    kind: 'quantity',
    reads: 'shutter',
    hint: 'empty: no slower',
  },
  {
    key: 'silent_sync_s',
    only: ['focal_plane'],
    label: 'Sync with the silent shutter',
    kind: 'quantity',
    reads: 'shutter',
    hint: 'empty: it takes no flash',
  },
  {
    key: 'travel_s',
    only: ['focal_plane'],
    label: 'Curtain travel',
    kind: 'quantity',
    reads: 'shutter',
    hint: 'empty: about the sync time',
  },
  { key: 'hss', label: 'High-speed sync', kind: 'check' },
  { ...stabiliser },
  {
    key: 'dark_edge',
    only: ['focal_plane'],
    label: 'Past sync, a landscape test frame goes dark at the',
    kind: 'choice',
    options: [
      ['unknown', 'not tried yet'],
      ['bottom', 'bottom'],
      ['top', 'top'],
    ],
    hint: 'One frame of a wall, flash on, HSS off, two thirds past sync.',
  },
  {
    key: 'leaf_limits',
    only: ['leaf'],
    label: 'Leaf shutter: fastest time wide open',
    kind: 'rows',
    fields: [
      { key: 'f_number', label: 'At f/', kind: 'quantity', reads: 'aperture' },
      { key: 'fastest_s', label: 'no faster than', kind: 'quantity', reads: 'shutter' },
    ],
    blank: 'LeafLimit',
    add: 'Add a limit',
  },
  { key: 'iso_min', label: 'Lowest ISO', kind: 'quantity', reads: 'iso' },
  { key: 'iso_max', label: 'Highest ISO', kind: 'quantity', reads: 'iso' },
  { key: 'frame_width_mm', label: 'Frame width, mm', kind: 'quantity', reads: 'millimetres' },
  { key: 'frame_height_mm', label: 'Frame height, mm', kind: 'quantity', reads: 'millimetres' },
  { key: 'frames_per_s', label: 'Frames a second', kind: 'quantity', reads: 'rate' },
  { key: 'weight_g', label: 'Weight, g', kind: 'quantity', reads: 'weight', hint: 'with the lens' },
  note,
]

const modifier: Field[] = [
  { key: 'name', label: 'Name', kind: 'text' },
  {
    key: 'kind',
    label: 'Kind',
    kind: 'choice',
    options: words(
      'umbrella',
      'shoot_through',
      'softbox',
      'octa',
      'strip',
      'dish',
      'grid',
      'dome',
      'reflector',
      'extender',
      'bounce',
      'panel',
      'flag',
    ),
  },
  {
    key: 'stops',
    label: 'Effect, stops',
    kind: 'quantity',
    reads: 'level',
    hint: 'a loss is negative; without its layers',
  },
  { key: 'sd', label: 'Give or take, stops', kind: 'quantity', reads: 'level' },
  {
    key: 'layers',
    label: 'Layers that come off',
    kind: 'rows',
    fields: [
      { key: 'name', label: 'Layer', kind: 'text' },
      { key: 'stops', label: 'Effect, stops', kind: 'quantity', reads: 'level' },
      { key: 'sd', label: 'Give or take', kind: 'quantity', reads: 'level' },
      { key: 'usually_on', label: 'Usually on', kind: 'check' },
      { key: 'measured', label: 'Measured by you', kind: 'check' },
    ],
    blank: 'Layer',
    add: 'Add a layer',
  },
  {
    key: 'face',
    label: 'A bright face of its own',
    kind: 'part',
    blank: 'Face',
    fields: [
      { key: 'shape', label: 'Shape', kind: 'choice', options: words('disc', 'rectangle') },
      { key: 'width_m', label: 'Width or diameter, m', kind: 'quantity', reads: 'distance' },
      { key: 'height_m', label: 'Height, m', kind: 'quantity', reads: 'distance' },
    ],
  },
  {
    key: 'fits',
    label: 'Fits these kinds of unit (none ticked: all)',
    kind: 'set',
    options: words('shoe', 'pocket', 'monobloc', 'pack', 'built_in', 'ring') as [string, string][],
  },
  { key: 'mount', label: 'Mount', kind: 'text', hint: 'in your own words; empty: any' },
  { key: 'adapters', label: 'Adapters for', kind: 'names', hint: 'other mounts, with commas' },
  {
    key: 'adapter_stops',
    label: 'An adapter takes, stops',
    kind: 'quantity',
    reads: 'level',
    hint: 'a loss is negative',
  },
  { key: 'not_on', label: 'Does not fit', kind: 'names', hint: 'units by name, with commas' },
  { key: 'needs_zoom_head', label: 'Works on a zoomed head only', kind: 'check' },
  weight,
  { ...price, hint: 'kept; not counted with yet' },
  { key: 'typical', label: 'Typical figures, not of this very one', kind: 'check' },
  note,
]

const lens: Field[] = [
  { key: 'name', label: 'Name', kind: 'text' },
  { key: 'focal_mm', label: 'Focal length, mm', kind: 'quantity', reads: 'focal' },
  {
    key: 'focal_most_mm',
    label: 'Longest focal length, mm',
    kind: 'quantity',
    reads: 'focal',
    hint: 'only for a zoom',
  },
  { key: 'widest', label: 'Widest aperture', kind: 'quantity', reads: 'aperture' },
  {
    key: 'widest_most',
    label: 'Widest at its long end',
    kind: 'quantity',
    reads: 'aperture',
    hint: 'empty: the same all through',
  },
  { key: 'smallest', label: 'Smallest aperture', kind: 'quantity', reads: 'aperture' },
  { ...stabiliser },
  weight,
  price,
  note,
]

const filter: Field[] = [
  { key: 'name', label: 'Name', kind: 'text' },
  { key: 'stops', label: 'ND, stops', kind: 'quantity', reads: 'nd' },
  {
    key: 'most_stops',
    label: 'At its far end, stops',
    kind: 'quantity',
    reads: 'nd',
    hint: 'only for a variable one',
  },
  { key: 'weight_g', label: 'Weight, g', kind: 'quantity', reads: 'weight' },
  note,
]

const trigger: Field[] = [
  { key: 'name', label: 'Name', kind: 'text' },
  {
    key: 'kind',
    label: 'Kind',
    kind: 'choice',
    options: words('transmitter', 'receiver', 'cord', 'adapter', 'optical'),
  },
  {
    key: 'passes',
    label: 'Passes on',
    kind: 'set',
    options: words('fire', 'power', 'automatic', 'hss') as [string, string][],
  },
  { ...shoe, key: 'from_shoe', label: 'Sits on the shoe' },
  { ...shoe, key: 'to_shoe', label: 'Offers the shoe' },
  weight,
  price,
  note,
]

const battery: Field[] = [
  { key: 'name', label: 'Name', kind: 'text', hint: 'one battery or set, by its own name' },
  { key: 'fits', label: 'Fits', kind: 'text', hint: 'the name of a unit, or of its power supply' },
  cells,
  { key: 'holds', label: 'Still holds, share of new', kind: 'quantity', reads: 'power' },
  weight,
  price,
  note,
]

const stand: Field[] = [
  { key: 'name', label: 'Name', kind: 'text' },
  { key: 'kind', label: 'Kind', kind: 'choice', options: words('stand', 'boom', 'clamp') },
  { key: 'height_m', label: 'Height, fully up', kind: 'quantity', reads: 'distance' },
  { key: 'load_kg', label: 'Bears, kg', kind: 'quantity', reads: 'number' },
  { key: 'reach_m', label: 'Reach of its arm', kind: 'quantity', reads: 'distance', hint: '0: it has none' },
  { key: 'folded_m', label: 'Length when folded', kind: 'quantity', reads: 'distance' },
  weight,
  price,
  note,
]

export const KIT: Record<KitKind, { one: string; fields: Field[] }> = {
  units: { one: 'unit', fields: unit },
  modifiers: { one: 'modifier', fields: modifier },
  bodies: { one: 'body', fields: body },
  lenses: { one: 'lens', fields: lens },
  filters: { one: 'filter', fields: filter },
  triggers: { one: 'trigger', fields: trigger },
  batteries: { one: 'battery', fields: battery },
  stands: { one: 'stand', fields: stand },
}
