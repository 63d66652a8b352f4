import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

/** Neutral greys, two working colours, small round corners, flat. */
export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: {
    defaultTheme: 'bench',
    themes: {
      bench: {
        dark: true,
        colors: {
          background: '#161616',
          surface: '#1f1f1f',
          'surface-bright': '#292929',
          primary: '#d99a2b',
          secondary: '#7fa3b5',
          error: '#e0684d',
          'on-background': '#e8e6e1',
          'on-surface': '#e8e6e1',
        },
        variables: { 'border-color': '#e8e6e1', 'border-opacity': 0.14 },
      },
    },
  },
  defaults: {
    VBtn: { variant: 'outlined', rounded: 'sm', ripple: false },
    VTextField: { density: 'compact', variant: 'outlined', hideDetails: 'auto', color: 'primary' },
    VSelect: { density: 'compact', variant: 'outlined', hideDetails: 'auto', color: 'primary' },
    VCheckbox: { density: 'compact', hideDetails: true, color: 'primary', ripple: false },
    VSlider: { color: 'primary', trackSize: 3, thumbSize: 12, hideDetails: true, density: 'compact' },
    VDialog: { maxWidth: 560 },
    VCard: { rounded: 'sm', flat: true },
  },
})
