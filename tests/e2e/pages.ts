/** Each page of a class, by its address behind the class's. */
export const pages = [
  'today', 'plan', 'plan/year', 'plan/term', 'plan/make', 'plan/revise', 'plan/coverage', 'class', 'class/children/1', 'class/look-again', 'thoughts', 'class/slips',
  'class/baseline', 'class/trail', 'class/records', 'class/agreement', 'groups', 'groups/ahead', 'groups/after', 'groups/company', 'clipboard',
  'clipboard/anyone', 'mats', 'mats/counters/TenFrame', 'jar', 'sheets', 'map', 'activities', 'activities/under-the-lid', 'activities/new/change', 'cupboard',
  'set-out', 'set-up', 'set-up/approach', 'set-up/class-list', 'account', 'school', 'school/children', 'school/roster',
] // prettier-ignore
