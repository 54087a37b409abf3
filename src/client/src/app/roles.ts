import type { Schemas } from './api/client'
import { t } from './language'

/** What an adult can be in a class, as the school says it. */
export const roles: Record<Schemas['ClassRole'], string> = {
  LeadTeacher: t('Lead teacher'),
  Assistant: t('Assistant'),
  MathsLead: t('Maths lead'),
  Cover: t('Cover'),
}
