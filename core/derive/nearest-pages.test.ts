import { describe, expect, it } from 'vitest';
import { nearestPages } from './nearest-pages.ts';

const ADDRESSES = [
  '/',
  '/courses',
  '/courses/evening-classes',
  '/courses/short-courses',
  '/visit',
  '/visit/find-us',
  '/staff/find-us',
  null,
];
const near = (path: string, isOffered = (row: number) => row !== 6) =>
  nearestPages(ADDRESSES, path, isOffered).map(({ row, because }) => [ADDRESSES[row], because]);

describe('pages near an address that leads nowhere', () => {
  it('have its name elsewhere, or nearly its name, or stand above', () => {
    expect(near('/about/find-us')).toEqual([['/visit/find-us', 'same name']]);
    expect(near('/courses/evening-clases')).toEqual([
      ['/courses/evening-classes', 'like name'],
      ['/courses', 'above'],
    ]);
    expect(near('/courses/evening')[0]).toEqual(['/courses/evening-classes', 'like name']);
    expect(near('/visit/opening-hours')).toEqual([['/visit', 'above']]);
    expect(near('/Visit.html')).toEqual([['/visit', 'same name']]);
  });

  it('are those in the same place first', () => {
    expect(near('/staff/old/find-us', () => true).map(([address]) => address)).toEqual([
      '/staff/find-us',
      '/visit/find-us',
    ]);
  });

  it('are none where nothing is like it, nor what the visitor may not know of', () => {
    expect(near('/admin/login')).toEqual([]);
    expect(near('/')).toEqual([]);
    expect(near('/find-us', (row) => row === 0)).toEqual([]);
  });
});
