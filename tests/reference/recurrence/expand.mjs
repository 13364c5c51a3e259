// Expands rules with rrule (npm): JSON cases in the file named, JSON lists of local times on standard output.
// COUNT and UNTIL are taken out: the caller drops what does not exist, then counts. A rule that takes a second is given up.
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { createContext, runInContext } from 'node:vm'

const { RRule } = createRequire(process.argv[2] + '/web/package.json')('rrule')
const answers = JSON.parse(readFileSync(process.argv[3], 'utf8')).map((one) => {
  const options = RRule.parseString(one.rule.replace(/;?(COUNT|UNTIL)=\w+/g, ''))
  const until = new Date(new Date(one.to + 'Z').getTime() + 86400000)
  const all = () => new RRule({ ...options, dtstart: new Date(one.start + 'Z'), until }).all()
  try {
    return runInContext('all()', createContext({ all }), { timeout: 500 }).map((date) => date.toISOString().slice(0, 19))
  } catch {
    return null
  }
})
process.stdout.write(JSON.stringify(answers))
