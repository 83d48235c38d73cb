import { expect, test } from '@jest/globals';
import { faultsOf } from '../../../scripts/audit.mjs';

const URL = 'https://advisories.example/1';
const report = (severity: string) => ({
  vulnerabilities: {
    'left-hand': { name: 'left-hand', via: [{ url: URL, title: 'Runs what it reads', severity }] },
    'right-hand': { name: 'right-hand', via: ['left-hand'] },
  },
});
const why = 'We read nothing with it.';

test('a weakness of high severity is told once, by where it is; lesser ones are not', () => {
  expect(faultsOf(report('critical'), {})).toEqual([`left-hand: Runs what it reads (critical), ${URL}`]);
  expect(faultsOf(report('moderate'), {})).toEqual([]);
});

test('what is allowed with a reason is not told before its date has passed', () => {
  const allowed = { [URL]: { why, until: '2027-01-31' } };
  expect(faultsOf(report('high'), allowed, '2027-01-31')).toEqual([]);
  expect(faultsOf(report('high'), allowed, '2027-02-01')).toEqual([
    expect.stringMatching(/was allowed until 2027-01-31: We read nothing with it[.]/),
  ]);
});
