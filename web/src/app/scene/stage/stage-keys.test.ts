import { describe, expect, test } from '@jest/globals';
import { stageCommand, type StageFacts } from './stage-keys';

const selected: StageFacts = { count: 2, canEdit: true };

function asked(key: string, held: Partial<KeyboardEvent> = {}, facts: Partial<StageFacts> = {}) {
  const event = { key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held };
  return stageCommand(event, { ...selected, ...facts });
}

describe('keys on the stage', () => {
  test('change what is selected', () => {
    expect(['g', 'G', 'd', 'Delete'].map((key) => asked(key))).toEqual(['group', 'ungroup', 'duplicate', 'remove']);
    expect(['PageUp', 'PageDown'].map((key) => asked(key))).toEqual(['forward', 'backward']);
    expect(['PageUp', 'PageDown'].map((key) => asked(key, { shiftKey: true }))).toEqual(['front', 'back']);
    for (const held of [{ ctrlKey: true }, { metaKey: true }]) {
      expect(asked('c', held)).toBe('copy');
      expect(asked('C', held)).toBe('copy');
    }
  });

  test('change nothing where nothing is selected, or while a dry run is shown', () => {
    for (const facts of [{ count: 0 }, { canEdit: false }]) {
      for (const key of ['g', 'G', 'd', 'Delete', 'PageUp', 'PageDown']) expect(asked(key, {}, facts)).toBeNull();
      expect(asked('c', { ctrlKey: true }, facts)).toBeNull();
    }
  });

  test('select all and zoom whatever is shown; the pen needs layers that can be changed', () => {
    for (const facts of [{ count: 0 }, { canEdit: false }]) {
      expect(asked('a', { ctrlKey: true }, facts)).toBe('all');
      expect(asked('A', { metaKey: true }, facts)).toBe('all');
      expect(asked('z', {}, facts)).toBe('zoom');
    }
    expect(asked('n', {}, { count: 0 })).toBe('pen');
    expect(asked('n', {}, { canEdit: false })).toBeNull();
  });

  test('are left to others with Alt, with Ctrl where that is something else, and where they mean nothing', () => {
    for (const key of ['g', 'd', 'n', 'z', 'Delete', 'PageUp']) {
      expect(asked(key, { altKey: true })).toBeNull();
      expect(asked(key, { ctrlKey: true })).toBeNull();
    }
    expect(asked('a')).toBeNull();
    expect(asked('a', { ctrlKey: true, altKey: true })).toBeNull();
    expect(asked('c')).toBeNull();
    expect(asked('D')).toBeNull();
    expect(asked('constructor')).toBeNull();
  });
});
