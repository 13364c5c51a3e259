import { useQueryClient } from '@tanstack/vue-query'
import { reactive } from 'vue'
import { api, sentence } from '../ui/api'
import type { MediaState } from './media'

/** What files may be, as a browser's chooser is told. */
export const ACCEPTED = 'image/png,image/jpeg,image/webp,image/svg+xml,video/mp4,video/webm,video/quicktime'

export interface Upload {
  name: string
  /** Of its bytes that have gone, 0 to 1. */
  share: number
  trouble: string
}

/** Brings files in, one after the other; `arrived` hears of each that the server has, before it was looked into. */
export function useBringingIn(arrived: (media: MediaState) => void = () => undefined) {
  const queries = useQueryClient()
  const uploads = reactive<Upload[]>([])
  async function bringIn(files: File[] | FileList | null) {
    const news = [...(files ?? [])].map((file) => ({ file, upload: reactive<Upload>({ name: file.name, share: 0, trouble: '' }) }))
    uploads.push(...news.map(({ upload }) => upload))
    for (const { file, upload } of news) {
      try {
        arrived(await api.upload<MediaState>('media', file, (share) => (upload.share = share)))
        putAway(upload)
        await queries.invalidateQueries({ queryKey: ['media'] })
      } catch (e) {
        upload.trouble = sentence(e)
      }
    }
  }
  /** What was chosen in a field; it is empty then, so that the same can be chosen again. */
  function chosen({ target }: Event) {
    const field = target as HTMLInputElement
    void bringIn(field.files)
    field.value = ''
  }
  const putAway = (upload: Upload) => uploads.splice(uploads.indexOf(upload), 1)
  return { uploads, bringIn, chosen, putAway }
}
