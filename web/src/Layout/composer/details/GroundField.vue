<script setup lang="ts">
import { ref } from 'vue'
import { api, sentence } from '../../../ui/api'

/** The colour of a box beside content that leaves bars: chosen, or taken from the edge of the picture in it. */
const props = defineProps<{ ground?: string; media?: string }>()
const emit = defineEmits<{ change: [ground: string | undefined, gesture?: string] }>()
const said = ref('')

async function take() {
  said.value = ''
  try {
    const { color, share } = await api.get<{ color: string; share: number }>(`media/${props.media}/edge`)
    emit('change', color)
    said.value = `${color}, the colour of ${Math.round(share * 100)} % of its edge.`
  } catch (e) {
    said.value = sentence(e)
  }
}
</script>

<template>
  <div class="wide ground">
    <label class="switch"
      ><input type="checkbox" :checked="!!ground" @change="emit('change', ground ? undefined : '#000000')" /> Colour beside the content</label
    >
    <input
      v-if="ground"
      type="color"
      class="form-control form-control-color"
      aria-label="Colour beside the content"
      :value="ground.slice(0, 7)"
      @input="emit('change', ($event.target as HTMLInputElement).value, 'ground')"
    />
    <button v-if="media" type="button" class="btn btn-link btn-sm p-0" @click="take">take that of its edge</button>
    <p v-if="said" class="m-0 soft small" role="status">{{ said }}</p>
  </div>
</template>

<style scoped>
.ground {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
}
.switch {
  display: flex;
  gap: 6px;
  align-items: center;
}
.form-control-color {
  width: 44px;
  height: 24px;
  padding: 2px;
}
</style>
