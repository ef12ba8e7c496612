<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { WrittenRecord } from '@/api/client'
import { saveBlob } from '@/parts/files/blob'
import { useReview } from '@/state/review'

/** How many records there were at each step, as a picture that can be saved. The same stands in the record as tables. */
const props = defineProps<{ flow: WrittenRecord['flow'] }>()
const { t, n } = useI18n()
const review = useReview()
const picture = ref<SVGSVGElement>()

const width = 640
const boxHeight = 46
const gap = 14
const shown = computed(() => {
  const most = 5
  const all = props.flow.sources
  if (all.length <= most) return all.map((s) => ({ name: s.place, records: s.records }))
  const rest = all.slice(most - 1)
  return [
    ...all.slice(0, most - 1).map((s) => ({ name: s.place, records: s.records })),
    {
      name: t('written.others', { n: rest.length }),
      records: rest.reduce((sum, s) => sum + s.records, 0),
    },
  ]
})
const each = computed(() => (width - gap * (shown.value.length - 1)) / shown.value.length)
const boxes = computed(() =>
  shown.value.map((s, i) => ({ ...s, x: i * (each.value + gap), w: each.value })),
)
const known = computed(() => props.flow.left !== undefined)
const height = computed(() => (known.value ? 3 * boxHeight + 2 * 30 : 2 * boxHeight + 30))
const cut = (s: string, w: number) => {
  const most = Math.max(4, Math.floor(w / 7))
  return s.length > most ? `${s.slice(0, most - 1)}…` : s
}
const about = computed(() => (props.flow.exact ? '' : `${t('written.about')} `))

function svg(): string {
  return new XMLSerializer().serializeToString(picture.value!)
}
const name = computed(() => `${review.saved?.name ?? ''}, ${t('written.flowFile')}`)
function saveSvg() {
  saveBlob(new Blob([svg()], { type: 'image/svg+xml' }), `${name.value}.svg`)
}
async function savePng() {
  const image = new Image()
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg())}`
  await image.decode()
  const canvas = document.createElement('canvas')
  canvas.width = width * 3
  canvas.height = height.value * 3
  const ink = canvas.getContext('2d')!
  ink.fillStyle = '#fff'
  ink.fillRect(0, 0, canvas.width, canvas.height)
  ink.drawImage(image, 0, 0, canvas.width, canvas.height)
  canvas.toBlob((blob) => blob && saveBlob(blob, `${name.value}.png`), 'image/png')
}
</script>

<template>
  <figure>
    <svg
      ref="picture"
      xmlns="http://www.w3.org/2000/svg"
      :viewBox="`0 0 ${width} ${height}`"
      :width="width"
      :height="height"
      role="img"
      :aria-label="t('written.flow')"
      font-family="Atkinson Hyperlegible Next Variable, sans-serif"
      font-size="13"
    >
      <g v-for="(b, i) in boxes" :key="i">
        <rect
          :x="b.x + 0.5"
          y="0.5"
          :width="b.w - 1"
          :height="boxHeight - 1"
          fill="none"
          stroke="#3a2f45"
        />
        <text :x="b.x + b.w / 2" y="19" text-anchor="middle" fill="#3a2f45">
          {{ cut(b.name, b.w) }}
        </text>
        <text :x="b.x + b.w / 2" y="37" text-anchor="middle" font-weight="700" fill="#1d1a26">
          {{ n(b.records, 'whole') }}
        </text>
        <path
          :d="`M${b.x + b.w / 2} ${boxHeight}V${boxHeight + 15}H${width / 2}V${boxHeight + 30}`"
          fill="none"
          stroke="#8a8094"
        />
      </g>
      <g>
        <rect
          :x="width / 4"
          :y="boxHeight + 30.5"
          :width="width / 2"
          :height="boxHeight - 1"
          fill="none"
          stroke="#3a2f45"
        />
        <text :x="width / 2" :y="boxHeight + 49" text-anchor="middle" fill="#3a2f45">
          {{ t('written.found') }}
        </text>
        <text
          :x="width / 2"
          :y="boxHeight + 67"
          text-anchor="middle"
          font-weight="700"
          fill="#1d1a26"
        >
          {{ n(flow.found, 'whole') }}
        </text>
      </g>
      <g v-if="known">
        <path
          :d="`M${width / 2} ${2 * boxHeight + 30}V${2 * boxHeight + 60}`"
          fill="none"
          stroke="#8a8094"
        />
        <text :x="width / 2 + 12" :y="2 * boxHeight + 49" fill="#5c5462">
          {{ t('written.removed', { n: about + n(flow.removed ?? 0, 'whole') }) }}
        </text>
        <rect
          :x="width / 4"
          :y="2 * boxHeight + 60.5"
          :width="width / 2"
          :height="boxHeight - 1"
          fill="none"
          stroke="#3a2f45"
          stroke-width="1.5"
        />
        <text :x="width / 2" :y="2 * boxHeight + 79" text-anchor="middle" fill="#3a2f45">
          {{ t('written.left') }}
        </text>
        <text
          :x="width / 2"
          :y="2 * boxHeight + 97"
          text-anchor="middle"
          font-weight="700"
          fill="#1d1a26"
        >
          {{ about + n(flow.left ?? 0, 'whole') }}
        </text>
      </g>
    </svg>
    <figcaption class="small">
      {{ t('written.flow') }}
      <button class="link" @click="saveSvg">SVG</button>
      <button class="link" @click="savePng">PNG</button>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 14px 0 4px;
}

svg {
  max-width: 100%;
  height: auto;
}

.link {
  margin-left: 8px;
}
</style>
