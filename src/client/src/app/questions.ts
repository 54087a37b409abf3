import type { Schemas } from '@/app/api/client'
import { t } from '@/app/language'

export type Choice = Schemas['ApproachChoice']

export interface Question {
  name: keyof Choice
  asks: string
  of: { value: string; label: string; means: string }[]
}

/** One line on what each choice means; the first is the usual one. What follows from it is worked out in the core, which also says what an answer means where that hangs on its numbers. */
export const questions: Question[] = [
  {
    name: 'frameFill',
    asks: t('How is a frame filled?'),
    of: [
      { value: 'ByFives', label: t('By fives'), means: t('Six is five and one.') },
      { value: 'ByPairs', label: t('By pairs'), means: t('Six is three pairs; odd and even show at once.') },
    ],
  },
  {
    name: 'frameDirection',
    asks: t('Which way does a frame lie?'),
    of: [
      { value: 'Lying', label: t('Lying'), means: t('Rows of five, read from left to right.') },
      { value: 'Upright', label: t('Upright'), means: t('Columns of five, filled from below like a tower.') },
    ],
  },
  {
    name: 'symbols',
    asks: t('When do numerals and signs come in?'),
    of: [
      {
        value: 'AfterObjects',
        label: t('After objects, fingers and drawings'),
        means: t('Skills shown in signs only wait in the plan; cards keep signs away until it is sure with things.'),
      },
      {
        value: 'FromTheStart',
        label: t('From the start, beside them'),
        means: t('Skills with signs come sooner; cards ask for the numeral beside the things each time.'),
      },
    ],
  },
  {
    name: 'sizes',
    asks: t('How large are the numbers?'),
    of: [
      {
        value: 'SmallFirst',
        label: t('A small range made secure first'),
        means: t('The plan stays within ten as long as it can; sets begin with small numbers.'),
      },
      {
        value: 'LargeEarly',
        label: t('Large numbers early and often'),
        means: t('Skills beyond ten are planned sooner; the larger half of the numbers comes up twice as often.'),
      },
    ],
  },
  {
    name: 'order',
    asks: t('In which order does the year go?'),
    of: [
      { value: 'Spiral', label: t('Spiral'), means: t('Strands change from day to day and come back.') },
      {
        value: 'UnitByUnit',
        label: t('Unit by unit'),
        means: t('The plan stays with a strand as long as it has something to teach.'),
      },
    ],
  },
  {
    name: 'sheets',
    asks: t('What are worksheets for?'),
    of: [
      {
        value: 'AsRecord',
        label: t('Objects first, sheet as record'),
        means: t('Small groups get a sheet afterwards; it is in the pack.'),
      },
      { value: 'EveryLesson', label: t('A sheet in every lesson'), means: t('The carpet’s lesson gets one as well.') },
      {
        value: 'None',
        label: t('None'),
        means: t('Cards and packs leave sheets out. What is needed to play is still printed.'),
      },
    ],
  },
  {
    name: 'groups',
    asks: t('Who works together?'),
    of: [
      {
        value: 'SameStep',
        label: t('Children with the same next step'),
        means: t('Each group learns one thing that all of it is ready for.'),
      },
      { value: 'Mixed', label: t('Mixed'), means: t('One who has it sits beside those who nearly do.') },
    ],
  },
  {
    name: 'secure',
    asks: t('What counts as secure?'),
    of: [
      { value: 'Usual', label: t('Usual'), means: '' },
      { value: 'Strict', label: t('Strict'), means: '' },
      { value: 'Light', label: t('Light'), means: '' },
    ],
  },
  {
    name: 'fading',
    asks: t('When may a secure skill have faded?'),
    of: [
      { value: 'Usual', label: t('As usual'), means: '' },
      { value: 'Sooner', label: t('Sooner'), means: '' },
      { value: 'Later', label: t('Later'), means: '' },
      { value: 'Never', label: t('Never by time alone'), means: '' },
    ],
  },
  {
    name: 'looks',
    asks: t('How much time goes into looking again?'),
    of: [
      { value: 'Usual', label: t('As usual'), means: '' },
      { value: 'Little', label: t('Little'), means: '' },
      { value: 'Much', label: t('Much'), means: '' },
    ],
  },
  {
    name: 'onesWord',
    asks: t('Single things are'),
    of: [
      { value: 'Ones', label: t('ones'), means: t('“Four tens and two ones.”') },
      { value: 'Units', label: t('units'), means: t('“Four tens and two units.”') },
    ],
  },
  {
    name: 'fewerWord',
    asks: t('Of kites there are'),
    of: [
      { value: 'Fewer', label: t('fewer'), means: t('“Three fewer kites.”') },
      { value: 'Less', label: t('less'), means: t('“Three less kites.”') },
    ],
  },
  {
    name: 'takeWord',
    asks: t('When some go, we'),
    of: [
      { value: 'TakeAway', label: t('take away'), means: t('“Five take away two.”') },
      { value: 'Subtract', label: t('subtract'), means: t('“Five subtract two.”') },
    ],
  },
  {
    name: 'sentenceWord',
    asks: t('3 + 4 = 7 is a'),
    of: [
      { value: 'NumberSentence', label: t('number sentence'), means: '' },
      { value: 'Equation', label: t('equation'), means: '' },
      { value: 'Sum', label: t('sum'), means: '' },
    ],
  },
  {
    name: 'yearWord',
    asks: t('This year is called'),
    of: [
      { value: 'Kindergarten', label: t('kindergarten'), means: '' },
      { value: 'Reception', label: t('reception'), means: '' },
    ],
  },
]
