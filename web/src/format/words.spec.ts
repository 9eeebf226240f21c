import { describe, expect, it } from 'vitest';
import { typed } from './number';
import { groundWord } from '../components/catalogue';
import { catalogue } from '../renderInStudio';
import { allows, marked, mixWords, plain, start } from './words';

const shelf = [
  { id: 'liquid', name: 'Glazing liquid', kind: 'medium', solids: 0.3, water: 0.6, glycol: 0.1 },
  { id: 'pv19', name: 'PV19', kind: 'paint', solids: 0.4, water: 0.5, glycol: 0.1 },
];

describe('words of the bench', () => {
  it('say a mix as parts, and a single material without any', () => {
    const mix = [
      { material: 'liquid', parts: 76.5 },
      { material: 'pv19', parts: 8.5 },
    ];
    expect(mixWords(mix, shelf)).toBe('76.5 Glazing liquid : 8.5 PV19');
    expect(mixWords([{ material: 'pv19', parts: 3 }], shelf)).toBe('PV19');
    expect(mixWords([{ material: 'gone', parts: 1 }], shelf)).toBe('gone');
  });

  it('leave wet varnish alone where paint may be blended', () => {
    expect(allows('workable', false)).toBe('workable: blend, wipe, keep a wet edge');
    expect(allows('workable', true)).toBe('wet: leave it');
    expect(allows('setting', true)).toBe('setting: leave it alone');
  });

  it('say in words how well a number is known', () => {
    expect(marked('two coats as a rule. [practice]')).toBe(
      'two coats as a rule. (common practice)',
    );
    expect(marked('[memory] up to 15 %')).toBe('(typical, not measured) up to 15 %');
  });

  it('say numbers without noise', () => {
    expect([plain(40), plain(0.1 + 0.2), plain(33.333), plain(2.5, 0)]).toEqual([
      '40',
      '0.3',
      '33.3',
      '3',
    ]);
  });

  it('read numbers as they are typed, and never take a word or nothing for 0', () => {
    expect([typed('7,5'), typed(' 40 ')]).toEqual([7.5, 40]);
    expect([typed(''), typed('some'), typed('1 2')]).toEqual([NaN, NaN, NaN]);
  });

  it('name the ground by what it absorbs', () => {
    expect([12, 33].map((um) => groundWord(catalogue.grounds, um))).toEqual([
      'Primed canvas',
      'Ground that absorbs 33 µm of water',
    ]);
    expect(start('seal drawing')).toBe('Seal drawing');
  });
});
