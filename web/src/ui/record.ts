/** Things of which it is recorded who did what with them. */
export type RecordedKind =
  'layout' | 'filled' | 'playlist' | 'schedule' | 'source' | 'style' | 'overlay' | 'trigger' | 'panel' | 'media' | 'display' | 'place' | 'face'
