import { describe, expect, it } from 'vitest';
import { describedThings } from './described-things.ts';

const json = (data: unknown) => `<script type="application/ld+json">${JSON.stringify(data)}</script>`;

describe('what a page describes for machines', () => {
  it('is read of JSON-LD, of one thing, of several, and of a graph', () => {
    const course = {
      '@context': 'https://schema.org',
      '@type': 'Course',
      name: 'Lofting',
      offers: { '@type': 'Offer', price: 85 },
    };
    const read = {
      types: ['Course'],
      says: { name: ['Lofting'], offers: [{ types: ['Offer'], says: { price: ['85'] } }] },
    };
    expect(describedThings(json(course))).toEqual([read]);
    expect(describedThings(json([course, { '@type': ['https://schema.org/Person', 'Thing'] }]))).toEqual([
      read,
      { types: ['Person', 'Thing'], says: {} },
    ]);
    expect(describedThings(json({ '@context': 'https://schema.org', '@graph': [course] }))).toEqual([read]);
  });

  it('is read of microdata, each value by its element, and what is within another thing with that one', () => {
    const html = `<div itemscope itemtype="https://schema.org/Person"><b itemprop="name">Marek  Holt</b>
      <a itemprop="url" href="https://marek.example/">home</a><time itemprop="birthDate" datetime="1980-05-01">May</time>
      <meta itemprop="telephone" content="01632 960 001">
      <p itemprop="address" itemscope itemtype="https://schema.org/PostalAddress"><span itemprop="streetAddress">1 Slipway</span></p></div>`;
    expect(describedThings(html)).toEqual([
      {
        types: ['Person'],
        says: {
          name: ['Marek Holt'],
          url: ['https://marek.example/'],
          birthDate: ['1980-05-01'],
          telephone: ['01632 960 001'],
          address: [{ types: ['PostalAddress'], says: { streetAddress: ['1 Slipway'] } }],
        },
      },
    ]);
  });

  it('is nothing where it cannot be read, and so much at most', () => {
    expect(describedThings('<script type="application/ld+json">{"@type": </script>')).toEqual([]);
    for (const odd of [null, 1, 'x', [[]], { '@graph': 'x' }])
      expect(describedThings(json(odd)).length).toBeLessThan(2);
    const deep = Array.from({ length: 300 }).reduce<object>((inner) => ({ '@type': 'A', about: inner }), {});
    expect(JSON.stringify(describedThings(json(deep))).length).toBeLessThan(1000);
    const wide = json(Array.from({ length: 500 }, () => ({ '@type': 'A', name: 'x'.repeat(9000) })));
    expect(describedThings(wide + wide)).toHaveLength(0);
    const many = json(Array.from({ length: 100 }, (_, n) => ({ '@type': 'A', name: String(n) })));
    expect(describedThings(many)).toHaveLength(30);
  });
});
