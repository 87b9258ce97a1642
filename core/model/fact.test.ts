import { expect, it } from 'vitest';
import { leadOfFact } from './fact.ts';

it.each([
  ['01632 960 001', 'tel:01632960001'],
  ['+44 (0)1632 960-001', 'tel:+441632960001'],
  ['(01632) 960001', 'tel:01632960001'],
  ['desk@pellow-quay.example', 'mailto:desk@pellow-quay.example'],
  ['a?b&c@pellow-quay.example', 'mailto:a%3Fb%26c@pellow-quay.example'],
  ['08.00-17.00', null],
  ['8–17', null],
  ['2026-11-29', null],
  ['TR11 3XX', null],
  ['12345 Quay', null],
  ['Call 01632 960 001', null],
  ['', null],
])('a fact that says ‘%s’ leads to %s', (text, lead) => expect(leadOfFact({ text })).toBe(lead));
