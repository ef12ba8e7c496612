/** Frames that a question can be broken along; each offers the parts it has. None is forced. */
export const frames = [
  { id: 'population-intervention-outcome', parts: ['population', 'intervention', 'outcome'] },
  {
    id: 'population-intervention-comparison-outcome',
    parts: ['population', 'intervention', 'comparison', 'outcome'],
  },
  { id: 'population-exposure-outcome', parts: ['population', 'exposure', 'outcome'] },
  { id: 'population-phenomenon-context', parts: ['population', 'phenomenon', 'context'] },
  { id: 'population-test-condition', parts: ['population', 'test', 'condition'] },
] as const

export const parts = [...new Set(frames.flatMap((f) => f.parts as readonly string[]))]
