import { readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { prove, tableOf } from './report'
import { readScenario, type Scenario } from './scenario'

const USE = 'npm run --silent prove -- --scenario FILE [--seed 1] [--crews 40] [--json]'

function asked() {
  try {
    const { values } = parseArgs({
      options: {
        scenario: { type: 'string' },
        seed: { type: 'string', default: '1' },
        crews: { type: 'string', default: '40' },
        json: { type: 'boolean', default: false },
      },
    })
    return values
  } catch (error) {
    return stop(error instanceof Error ? error.message : String(error))
  }
}

function stop(message: string): never {
  process.stderr.write(`${message}\n${USE}\n`)
  process.exit(2)
}

function wholeNumber(name: string, text: string, least: number): number {
  const value = Number(text)
  return Number.isInteger(value) && value >= least ? value : stop(`--${name} has to be a whole number from ${least}.`)
}

function scenarioAt(path: string): Scenario {
  try {
    return readScenario(readFileSync(path, 'utf8'))
  } catch (error) {
    return stop(`${path}: ${error instanceof Error ? error.message : String(error)}`)
  }
}

const { scenario: path, seed: seedText, crews: crewsText, json } = asked()
if (path === undefined) stop('Which scenario?')
const seed = wholeNumber('seed', seedText, 0)
const crews = wholeNumber('crews', crewsText, 1)
const scenario = scenarioAt(path)
const outcomes = prove(scenario, seed, crews)
const said = `${scenario.name}: ${scenario.about}\n${crews} crews, seed ${seed}, ${scenario.tanks} tanks each`
process.stdout.write(
  json
    ? `${JSON.stringify({ scenario: scenario.name, seed, crews, outcomes })}\n`
    : `${said}\n\n${tableOf(outcomes)}\n`,
)
