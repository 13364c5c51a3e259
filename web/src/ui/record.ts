/** Things of which it is recorded who did what with them. */
export type RecordedKind = 'layout' | 'playlist' | 'schedule' | 'source' | 'media' | 'display' | 'place' | 'face'
