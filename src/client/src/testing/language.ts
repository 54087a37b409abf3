import { config } from '@vue/test-utils'
import { language } from '@/app/language'

config.global.plugins.push(language)
// Where a part is mounted without the library.
config.global.directives = { tooltip: {} }
