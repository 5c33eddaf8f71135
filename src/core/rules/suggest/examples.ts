/** A small table with rules in words over it: what a common job looks like once it is done. */
export interface Example {
  /** The header, then a row for each record. */
  readonly rows: readonly (readonly string[])[];
  readonly phrases: readonly string[];
  /** The labels of the fields that others fill in. */
  readonly open?: readonly string[];
}

/** The common jobs, each with an example. Days stand as formulas, so that they are near today on every day. */
export const EXAMPLES = {
  limit: {
    rows: [
      ['Station', 'Crew', 'Oxygen'],
      ['Alder Weir', 'Heron', '8.4'],
      ['Birch Ford', 'Dipper', '4.6'],
      ['Cedar Sluice', 'Heron', '6.9'],
      ['Dove Bridge', 'Otter', '3.8'],
      ['Elder Lock', 'Dipper', '7.2'],
    ],
    phrases: ['records where oxygen below 5 as alarm'],
  },
  answers: {
    rows: [
      ['Clue', 'Answer', 'Key'],
      ['Dives for fish', 'kingfisher', 'kingfisher'],
      ['Bobs on stones', 'wagtail', 'dipper'],
      ['Stands still', '', 'heron'],
      ['Slides on mud', 'Otter', 'otter'],
    ],
    phrases: ['answer checked against key'],
    open: ['Answer'],
  },
  'two-fields': {
    rows: [
      ['Crew', 'Planned', 'Done'],
      ['Heron', '24', '25'],
      ['Dipper', '30', '21'],
      ['Otter', '18', '17.5'],
      ['Kingfisher', '20', '12'],
    ],
    phrases: ['records where done more than 10 % under planned as watch'],
  },
  bands: {
    rows: [
      ['Station', 'Turbidity'],
      ['Alder Weir', '4'],
      ['Birch Ford', '12'],
      ['Cedar Sluice', '28'],
      ['Dove Bridge', '41'],
      ['Elder Lock', '9'],
    ],
    phrases: ['turbidity in bands at 10 and 30'],
  },
  due: {
    rows: [
      ['Item', 'Holder', 'Next due'],
      ['Oxygen probe', 'Heron', '=TODAY()-3'],
      ['pH buffer', 'Dipper', '=TODAY()+2'],
      ['Turbidity tube', 'Otter', '=TODAY()+40'],
      ['Nitrate strips', 'Heron', '=TODAY()+6'],
    ],
    phrases: ['next due is past as alarm, in the next 7 days as watch'],
  },
  repeats: {
    rows: [
      ['Person', 'Crew'],
      ['Rosa Calder', 'Heron'],
      ['Emeka Okoro', 'Dipper'],
      ['Ines Fenn', 'Otter'],
      ['Rosa Calder', 'Otter'],
    ],
    phrases: ['person is a duplicate as plum'],
  },
  top: {
    rows: [
      ['Person', 'Hours'],
      ['Tomasz Vilar', '31'],
      ['Aoife Marsh', '12'],
      ['Kenji Ahlberg', '44'],
      ['Mira Calder', '8'],
      ['Bram Fenn', '27'],
      ['Leila Okoro', '38'],
    ],
    phrases: ['hours in the top 2 as clear, in the bottom 2 as cool'],
  },
  shades: {
    rows: [
      ['Station', 'May', 'July', 'Sept'],
      ['Alder Weir', '11.2', '18.4', '12.9'],
      ['Birch Ford', '10.6', '17.1', '12.2'],
      ['Cedar Sluice', '12.8', '20.3', '14.5'],
      ['Dove Bridge', '9.9', '16.0', '11.7'],
    ],
    phrases: ['may, july and sept in a colour scale'],
  },
} as const satisfies Record<string, Example>;

export type ExampleName = keyof typeof EXAMPLES;
