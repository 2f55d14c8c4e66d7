import { WEB_DIST } from '../paths'
import { main } from './main'

main(WEB_DIST)
