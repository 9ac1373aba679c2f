/** For whom a rule is said: the whole job, a run, one kind of its posts, or one post. */
export type Scope = 'job' | 'run' | 'end' | 'corner' | 'gate' | 'line' | 'post'
