import { stdin } from 'node:process'
import { text } from 'node:stream/consumers'
import { answerDecide } from './answerDecide'

/** npm run decide: the decision on one loop file, for scripts. */
const { out, err, code } = await answerDecide(process.argv[2], () => text(stdin))
process.stdout.write(out)
process.stderr.write(err)
process.exitCode = code
