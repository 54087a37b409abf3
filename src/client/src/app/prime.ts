import { definePreset } from '@primeuix/themes'
import base from '@primeuix/themes/aura/base'
import button from '@primeuix/themes/aura/button'
import checkbox from '@primeuix/themes/aura/checkbox'
import confirmdialog from '@primeuix/themes/aura/confirmdialog'
import datatable from '@primeuix/themes/aura/datatable'
import datepicker from '@primeuix/themes/aura/datepicker'
import dialog from '@primeuix/themes/aura/dialog'
import drawer from '@primeuix/themes/aura/drawer'
import fileupload from '@primeuix/themes/aura/fileupload'
import inputtext from '@primeuix/themes/aura/inputtext'
import message from '@primeuix/themes/aura/message'
import overlaybadge from '@primeuix/themes/aura/overlaybadge'
import progressbar from '@primeuix/themes/aura/progressbar'
import select from '@primeuix/themes/aura/select'
import multiselect from '@primeuix/themes/aura/multiselect'
import chip from '@primeuix/themes/aura/chip'
import toast from '@primeuix/themes/aura/toast'
import inputnumber from '@primeuix/themes/aura/inputnumber'
import virtualscroller from '@primeuix/themes/aura/virtualscroller'
import togglebutton from '@primeuix/themes/aura/togglebutton'
import selectbutton from '@primeuix/themes/aura/selectbutton'
import tooltip from '@primeuix/themes/aura/tooltip'
import PrimeVue, { defaultOptions } from 'primevue/config'
import ConfirmationService from 'primevue/confirmationservice'
import { tooltip as tooltipOf } from './tooltip'
import type { App } from 'vue'
import { t } from './language'

const spruce = {
  50: '#eef4f1', 100: '#d5e4de', 200: '#abc9be', 300: '#7dab9c', 400: '#4d8576', 500: '#1f5a4e',
  600: '#1b5046', 700: '#17443c', 800: '#133831', 900: '#0f2c27', 950: '#0a1e1b',
} // prettier-ignore
const paper = {
  0: '#fffcf5', 50: '#faf5ea', 100: '#f3ecdc', 200: '#e6dcc6', 300: '#d9cfba', 400: '#b3a88f', 500: '#7d7565',
  600: '#5d6a64', 700: '#42574f', 800: '#2b463e', 900: '#1d3b34', 950: '#122822',
} // prettier-ignore

// Only the parts we use, on our own colours: paper for surfaces, spruce for what acts, corners of six pixels.
const preset = definePreset(
  {
    ...base,
    components: {
      button, checkbox, chip, confirmdialog, datatable, datepicker, dialog, drawer, fileupload, inputnumber, inputtext, message, multiselect,
      overlaybadge, progressbar, select, selectbutton, toast, togglebutton, tooltip, virtualscroller,
    }, // prettier-ignore
  },
  {
    primitive: { borderRadius: { xs: '2px', sm: '4px', md: '6px', lg: '6px', xl: '6px' } },
    components: {
      // Bare: the page says where a file can be dropped.
      fileupload: {
        root: { background: 'transparent', borderColor: 'transparent' },
        header: { padding: '0' },
        content: { padding: '0', gap: '0' },
      },
      // What is chosen is what acts.
      togglebutton: {
        root: {
          background: '{surface.0}',
          color: '{surface.900}',
          checkedColor: '#fffcf5',
          padding: '0.15rem',
          checkedBackground: '{primary.500}',
        },
        content: { checkedBackground: '{primary.500}', checkedShadow: 'none' },
        colorScheme: {
          light: {
            root: {
              background: '{surface.0}',
              checkedBackground: '{primary.500}',
              hoverBackground: '{surface.100}',
              borderColor: '{surface.400}',
              color: '{surface.900}',
              hoverColor: '{surface.900}',
              checkedColor: '#fffcf5',
              checkedBorderColor: '{primary.500}',
            },
            content: { checkedBackground: '{primary.500}' },
          },
        },
      },
      // The tablet's day is not always the school's: the field marks that itself.
      datepicker: { today: { background: 'transparent', color: 'inherit' } },
    },
    semantic: {
      primary: spruce,
      focusRing: { width: '3px', style: 'solid', color: '{primary.color}', offset: '2px' },
      // A field shows where one is as everything else does, not by the colour of its edge alone.
      formField: {
        focusRing: { width: '3px', style: 'solid', color: '{primary.color}', offset: '2px', shadow: 'none' },
      },
      transitionDuration: '0.12s',
      colorScheme: {
        light: {
          surface: paper,
          primary: {
            color: '{primary.500}',
            contrastColor: '#fffcf5',
            hoverColor: '{primary.700}',
            activeColor: '{primary.800}',
          },
          text: { color: '{surface.900}', mutedColor: '{surface.600}' },
          formField: {
            background: '{surface.0}',
            borderColor: '{surface.400}',
            placeholderColor: '{surface.600}',
            shadow: 'none',
          },
          content: { background: '{surface.0}', borderColor: '{surface.300}' },
        },
      },
    },
  },
)

export function installPrime(app: App) {
  // What the library writes into the page carries the page's nonce: nothing else may write styles there.
  const nonce = document.querySelector<HTMLMetaElement>('meta[property=csp-nonce]')?.nonce
  app.use(PrimeVue, {
    csp: { nonce },
    theme: { preset, options: { darkModeSelector: false, cssLayer: false } },
    locale: {
      ...defaultOptions.locale!,
      emptyMessage: t('Nothing here yet.'),
      emptyFilterMessage: t('Nothing of that name here.'),
      emptySearchMessage: t('Nothing of that name here.'),
      emptySelectionMessage: t('Nothing is chosen.'),
      searchMessage: t('{count} to choose from', { count: '{0}' }),
      selectionMessage: t('{count} chosen', { count: '{0}' }),
    },
  })
  app.use(ConfirmationService)
  app.directive('tooltip', tooltipOf)
}
