export { LOOK_FACTS, type LookFacts, type Told } from './likelihoods'
export { countSigns, learnedSigns, type LearnedSign, type SignCounts } from './learned'
export type { Scene } from './priors'
export { diagnose, diagnoseAll, type Diagnosis, type Likely, type LookWorth, type Noticed } from './diagnose'
