/** What a person has to mend before the command can do anything; said in one sentence. */
export class Unusable extends Error {}
