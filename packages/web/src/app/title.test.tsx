import { cleanup, render } from '@testing-library/react';
import { afterEach, expect, it } from 'vitest';
import { roomOf } from '../shell/rooms.ts';
import { useOpen, useRoom } from './title.ts';

afterEach(cleanup);

function Room({ path, what }: { readonly path: string; readonly what?: string }) {
  useRoom(roomOf(path));
  return what === undefined ? null : <Open what={what} />;
}
function Open({ what }: { readonly what: string }) {
  useOpen(what);
  return null;
}

it('says what is open and where, and forgets it when it is left', () => {
  const { rerender } = render(<Room path="/larder/1" what="Hake fillet 0927-L" />);
  expect(document.title).toBe('Hake fillet 0927-L · Larder · Zabrik');
  rerender(<Room path="/larder/tubs" />);
  expect(document.title).toBe('Tubs · Zabrik');
  rerender(<Room path="/nowhere" />);
  expect(document.title).toBe('Zabrik');
});

it('knows every address by the screen that stands there, and none by half a word', () => {
  expect(roomOf('/receive/prices')).toBe('Prices');
  expect(roomOf('/receive/019a')).toBe('Receive');
  expect(roomOf('/bench/cut/019a')).toBe('Cut to weight');
  expect(roomOf('/bench/cut')).toBe('Cut to weight');
  expect(roomOf('/larder/count/')).toBe('Stock-take');
  expect(roomOf('/larder/019a/trace')).toBe('Larder');
  expect(roomOf('/benchmark')).toBeUndefined();
  expect(roomOf('/larder/019a/trace/more')).toBeUndefined();
});
