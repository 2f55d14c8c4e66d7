export { LOOK_FACTS, type LookFacts } from './likelihoods'
export { countSigns, type SignCounts } from './learned'
export { chanceDull, type Scene } from './priors'
export { diagnose, diagnoseAll, type Diagnosis, type Likely, type LookWorth, type Noticed } from './diagnose'
