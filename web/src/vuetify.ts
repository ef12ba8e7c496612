import 'vuetify/styles'
import { createVuetify } from 'vuetify'

export const vuetify = createVuetify({
  theme: {
    defaultTheme: 'tamiz',
    themes: {
      tamiz: {
        dark: false,
        colors: {
          background: '#F6F3EC',
          surface: '#FFFDF9',
          primary: '#6A2C5B',
          secondary: '#1D6A70',
          error: '#A5341F',
          warning: '#8A5600',
          'on-surface': '#221C2B',
          'on-background': '#221C2B',
        },
      },
    },
  },
  defaults: {
    global: { ripple: false },
    VDialog: { maxWidth: 520 },
    VMenu: { offset: 4 },
  },
})
