import type { Schemas } from '@/app/api/client'

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
    asks: 'How is a frame filled?',
    of: [
      { value: 'ByFives', label: 'By fives', means: 'Six is five and one.' },
      { value: 'ByPairs', label: 'By pairs', means: 'Six is three pairs; odd and even show at once.' },
    ],
  },
  {
    name: 'frameDirection',
    asks: 'Which way does a frame lie?',
    of: [
      { value: 'Lying', label: 'Lying', means: 'Rows of five, read from left to right.' },
      { value: 'Upright', label: 'Upright', means: 'Columns of five, filled from below like a tower.' },
    ],
  },
  {
    name: 'symbols',
    asks: 'When do numerals and signs come in?',
    of: [
      {
        value: 'AfterObjects',
        label: 'After objects, fingers and drawings',
        means: 'Skills shown in signs only wait in the plan; cards keep signs away until it is sure with things.',
      },
      {
        value: 'FromTheStart',
        label: 'From the start, beside them',
        means: 'Skills with signs come sooner; cards ask for the numeral beside the things each time.',
      },
    ],
  },
  {
    name: 'sizes',
    asks: 'How large are the numbers?',
    of: [
      {
        value: 'SmallFirst',
        label: 'A small range made secure first',
        means: 'The plan stays within ten as long as it can; sets begin with small numbers.',
      },
      {
        value: 'LargeEarly',
        label: 'Large numbers early and often',
        means: 'Skills beyond ten are planned sooner; the larger half of the numbers comes up twice as often.',
      },
    ],
  },
  {
    name: 'order',
    asks: 'In which order does the year go?',
    of: [
      { value: 'Spiral', label: 'Spiral', means: 'Strands change from day to day and come back.' },
      {
        value: 'UnitByUnit',
        label: 'Unit by unit',
        means: 'The plan stays with a strand as long as it has something to teach.',
      },
    ],
  },
  {
    name: 'sheets',
    asks: 'What are worksheets for?',
    of: [
      {
        value: 'AsRecord',
        label: 'Objects first, sheet as record',
        means: 'Small groups get a sheet afterwards; it is in the pack.',
      },
      { value: 'EveryLesson', label: 'A sheet in every lesson', means: 'The carpet’s lesson gets one as well.' },
      {
        value: 'None',
        label: 'None',
        means: 'Cards and packs leave sheets out. What is needed to play is still printed.',
      },
    ],
  },
  {
    name: 'groups',
    asks: 'Who works together?',
    of: [
      {
        value: 'SameStep',
        label: 'Children with the same next step',
        means: 'Each group learns one thing that all of it is ready for.',
      },
      { value: 'Mixed', label: 'Mixed', means: 'One who has it sits beside those who nearly do.' },
    ],
  },
  {
    name: 'secure',
    asks: 'What counts as secure?',
    of: [
      { value: 'Usual', label: 'Usual', means: '' },
      { value: 'Strict', label: 'Strict', means: '' },
      { value: 'Light', label: 'Light', means: '' },
    ],
  },
  {
    name: 'fading',
    asks: 'When may a secure skill have faded?',
    of: [
      { value: 'Usual', label: 'As usual', means: '' },
      { value: 'Sooner', label: 'Sooner', means: '' },
      { value: 'Later', label: 'Later', means: '' },
      { value: 'Never', label: 'Never by time alone', means: '' },
    ],
  },
  {
    name: 'looks',
    asks: 'How much time goes into looking again?',
    of: [
      { value: 'Usual', label: 'As usual', means: '' },
      { value: 'Little', label: 'Little', means: '' },
      { value: 'Much', label: 'Much', means: '' },
    ],
  },
  {
    name: 'onesWord',
    asks: 'Single things are',
    of: [
      { value: 'Ones', label: 'ones', means: '“Four tens and two ones.”' },
      { value: 'Units', label: 'units', means: '“Four tens and two units.”' },
    ],
  },
  {
    name: 'fewerWord',
    asks: 'Of kites there are',
    of: [
      { value: 'Fewer', label: 'fewer', means: '“Three fewer kites.”' },
      { value: 'Less', label: 'less', means: '“Three less kites.”' },
    ],
  },
  {
    name: 'takeWord',
    asks: 'When some go, we',
    of: [
      { value: 'TakeAway', label: 'take away', means: '“Five take away two.”' },
      { value: 'Subtract', label: 'subtract', means: '“Five subtract two.”' },
    ],
  },
  {
    name: 'sentenceWord',
    asks: '3 + 4 = 7 is a',
    of: [
      { value: 'NumberSentence', label: 'number sentence', means: '' },
      { value: 'Equation', label: 'equation', means: '' },
      { value: 'Sum', label: 'sum', means: '' },
    ],
  },
  {
    name: 'yearWord',
    asks: 'This year is called',
    of: [
      { value: 'Kindergarten', label: 'kindergarten', means: '' },
      { value: 'Reception', label: 'reception', means: '' },
    ],
  },
]
