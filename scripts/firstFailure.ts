import fc from 'fast-check'

/** Of a property it is enough to know that it fails: no smaller example is looked for. */
fc.configureGlobal({ endOnFailure: true })
