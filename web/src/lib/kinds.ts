/** The kinds of kit, as the shelf and its addresses call them. */
export type KitKind =
  'units' | 'modifiers' | 'bodies' | 'lenses' | 'filters' | 'triggers' | 'batteries' | 'stands'
