import { config } from '@vue/test-utils'
import { language } from '@/app/language'

config.global.plugins.push(language)
