// Texts of the interface in English: ICU messages by key.
export const programs = {
  programs: 'For programs',
  programsReadRecordsEnter:
    'Programs read and enter records and receive findings over HTTP. Everything here is also an <a>OpenAPI 3.1 document</a>.',
  aToken: 'A token',
  ownerSheetMakesOne:
    'The owner of a sheet creates one under Share, Programs. Send it with each request: <code>Authorization: Bearer TOKEN</code>. It works for that sheet, and for the permissions that it was given:',
  yourTokenTryExamples: 'Your token, to try the examples',
  staysPage: 'It is kept in this page only.',
  answers: 'Responses',
  whatRefusedToldAs:
    'An error has the body <code>\'{\' "refused": "the reason, and the place in the request" \'}\'</code>. Its status is 400 for an invalid request, 401 for a missing or expired token, 403 where the token lacks the permission, 404 where the token has no such sheet, 412 where the sheet has changed since it was read, 429 for too many requests. An <code>ETag</code> that is sent back as <code>If-None-Match</code> is answered with 304 where nothing is different; <code>RateLimit-Remaining</code> says how many requests are left in this minute; pages are followed by their <code>next</code>, as <code>cursor</code>.',
  scopeScope: 'Scope: {scope}.',
  anyToken: 'Any token.',
  copyExampleSays: 'Copy the example of {says}',
  copy: 'Copy',
  runItHere: 'Run it here',
  answer: 'Answer',
  serverCannotBeReached: 'The server cannot be reached.',
} as const;
