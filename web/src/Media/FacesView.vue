<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { useDropZone } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, useTemplateRef, watchEffect } from 'vue'
import { type Face, loadFaces } from '../pane/faces'
import { api, sentence } from '../ui/api'
import { ask } from '../ui/ask'
import { useAsked } from '../ui/asked'
import { bytes } from '../ui/format'
import DropNote from '../ui/DropNote.vue'
import RecordButton from '../ui/RecordButton.vue'
import { useShelf } from '../ui/shelf'

/** The type faces that designs may be set in: those of the house, and those that were brought in. All are shipped to players with what is set in them. */
interface KnownFace extends Face {
  bytes: number
  cap_share?: number
  id?: string
  brought_in_by?: string | null
}

const queries = useQueryClient()
const shelf = useShelf()
const area = useTemplateRef('area')
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const said = ref<{ wrong: boolean; text: string }[]>([])
const sample = useAsked('sample')
const search = useAsked('search')
const query = useQuery({
  queryKey: ['known-faces'],
  queryFn: async () => {
    const { faces } = await api.get<{ faces: KnownFace[] }>('faces')
    void loadFaces(faces)
    return faces
  },
})
const families = computed(() => {
  const all = new Map<string, KnownFace[]>()
  for (const face of query.data.value ?? []) {
    if (face.family.toLowerCase().includes(search.value.trim().toLowerCase())) all.set(face.family, [...(all.get(face.family) ?? []), face])
  }
  return [...all].map(([family, faces]) => ({ family, faces: [...faces].sort((a, b) => a.weight - b.weight) }))
})
const words = computed(() => sample.value || 'The quick brown fox 0123456789 – São João, Πειραιάς, Київ')
const again = () => Promise.all(['known-faces', 'faces'].map((key) => queries.invalidateQueries({ queryKey: [key] })))

async function bringIn(files: File[] | FileList | null) {
  said.value = []
  for (const file of files ? [...files] : []) {
    try {
      const face = await api.upload<KnownFace & { variable: boolean }>('faces', file, () => undefined)
      const more = face.variable ? ' It is variable: it is drawn in its own weight only.' : ''
      said.value.push({ wrong: false, text: `${face.family} ${face.weight} is there; texts may be set in it.${more}` })
      await again()
    } catch (e) {
      said.value.push({ wrong: true, text: sentence(e) })
    }
  }
  if (chooser.value) chooser.value.value = ''
}
const { isOverDropZone } = useDropZone(area, { onDrop: (files) => void bringIn(files) })

async function remove(face: KnownFace) {
  const text = 'What is handed over keeps it, and it lies in the bin for 30 days.'
  if (!(await ask(`Take ${face.family} ${face.weight} away?`, text, 'Take it away'))) return
  said.value = []
  try {
    await api.delete(`faces/${face.id}`)
    await again()
  } catch (e) {
    said.value = [{ wrong: true, text: sentence(e) }]
  }
}
watchEffect(() => {
  shelf.findings = []
  shelf.remark = `${families.value.length} families of type`
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main ref="area" class="station">
    <div class="head">
      <div>
        <h1>Type faces</h1>
        <p class="facts m-0">
          <RouterLink to="/media">Media</RouterLink> · measured and drawn from the same file, and shipped to players with what is set in it
        </p>
      </div>
      <div class="actions">
        <BFormInput v-model="search" type="search" placeholder="Search by name" aria-label="Search faces" />
        <BFormInput v-model="sample" placeholder="Words to look at" aria-label="Words to look at" maxlength="200" />
        <input ref="chooser" type="file" multiple hidden accept=".ttf,.otf,font/ttf,font/otf" @change="bringIn(chooser?.files ?? null)" />
        <BButton variant="primary" @click="chooser?.click()">Bring in…</BButton>
      </div>
    </div>
    <section class="body p-3" aria-label="Type faces">
      <p v-for="(one, i) in said" :key="i" class="m-0 mb-2" :class="{ 'said-error': one.wrong }" :role="one.wrong ? 'alert' : 'status'">
        {{ one.text }}
      </p>
      <p v-if="query.isPending.value" class="empty">Reading the faces.</p>
      <p v-else-if="query.error.value" class="empty said-error">{{ query.error.value.message }}</p>
      <p v-else-if="families.length === 0" class="empty">No face is called so. Drag TTF or OTF files onto this page.</p>
      <table v-else class="faces">
        <tbody v-for="{ family, faces } in families" :key="family">
          <tr v-for="(face, i) in faces" :key="face.weight">
            <th scope="row">{{ i === 0 ? family : '' }}</th>
            <td class="figures">{{ face.weight }}</td>
            <td class="sample" :style="{ fontFamily: `'${family}', sans-serif`, fontWeight: face.weight }">{{ words }}</td>
            <td class="figures soft">{{ face.cap_share ? `capitals ${(100 * face.cap_share).toFixed(0)} %` : '' }}</td>
            <td class="figures soft">{{ bytes(face.bytes) }}</td>
            <td class="acts">
              <RecordButton v-if="face.id" :id="face.id" kind="face" :name="`${family} ${face.weight}`" />
              <button
                v-if="face.id"
                type="button"
                class="btn btn-link btn-sm p-0"
                :aria-label="`Take ${family} ${face.weight} away`"
                @click="remove(face)"
              >
                take away
              </button>
              <span v-else class="soft">of the house</span>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <DropNote :over="isOverDropZone" />
  </main>
</template>

<style scoped>
.station {
  position: relative;
}
.faces {
  width: 100%;
  border-collapse: collapse;
}
.faces tbody {
  border-top: 1px solid var(--rule);
}
th,
td {
  padding: 6px 14px 6px 0;
  white-space: nowrap;
}
th {
  font-weight: 700;
  vertical-align: top;
}
.sample {
  font-size: 1.5rem;
  line-height: 1.2;
  width: 100%;
  max-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
