import { boundsAt, compileScene, restFrame, type Frame } from '../../scene/sample';
import type { JoinedTerm, Layer, Pick, PickTerm } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { centreOf, type Box, type Point } from '../../basics/transform';

/**
 * A test of names by a pattern: * is any text, ? any one character, capitals do not matter. After a star the shortest
 * text is tried first and only the last star is ever taken back, so that it costs pattern × name at most.
 */
export function createPatternTest(pattern: string): (name: string) => boolean {
  const wanted = [...pattern.trim().toLocaleLowerCase('en')];
  return (name) => {
    const text = [...name.toLocaleLowerCase('en')];
    let [p, t, star, back] = [0, 0, -1, 0];
    while (t < text.length) {
      if (wanted[p] === '*') [star, back] = [p++, t];
      else if (p < wanted.length && (wanted[p] === '?' || wanted[p] === text[t])) [p, t] = [p + 1, t + 1];
      else if (star >= 0) [p, t] = [star + 1, ++back];
      else return false;
    }
    while (wanted[p] === '*') p++;
    return p === wanted.length;
  };
}

type Test = (layer: Layer, index: number) => boolean;

const none: Test = () => false;

function ruleTest({ tag, name, kind }: Extract<PickTerm, { by: 'rule' }>): Test {
  if (saysNothing({ by: 'rule', tag, name, kind })) return none;
  const matches = name === undefined ? null : createPatternTest(name);
  return (layer) =>
    (tag === undefined || layer.tags.includes(tag)) &&
    (matches === null || matches(layer.name)) &&
    (kind === undefined || layer.kind === kind);
}

function groupTest({ layers }: Scene, group: string): Test {
  const parents = new Map(layers.map(({ id, parent }) => [id, parent]));
  return ({ parent }) => {
    for (let at = parent; at !== null; at = parents.get(at) ?? null) if (at === group) return true;
    return false;
  };
}

function dataTest({ column, test, value }: Extract<PickTerm, { by: 'data' }>): Test {
  const wanted = value.trim().toLocaleLowerCase('en');
  const number = Number(value);
  const holds = (text: string): boolean => {
    switch (test) {
      case 'is':
        return text === wanted || (text !== '' && wanted !== '' && Number(text) === number);
      case 'is-not':
        return text !== wanted;
      case 'contains':
        return text.includes(wanted);
      case 'above':
        return text !== '' && Number(text) > number;
      case 'below':
        return text !== '' && Number(text) < number;
      case 'filled':
        return text !== '';
      case 'empty':
        return text === '';
    }
  };
  return ({ data }) =>
    holds(
      String(data[column] ?? '')
        .trim()
        .toLocaleLowerCase('en'),
    );
}

/** Boxes of the rest pose, sampled when a condition first asks for them. */
interface Places {
  readonly box: (index: number) => Box;
  readonly centre: (index: number) => Point;
}

function placesIn(scene: Scene): Places {
  let frame: Frame | null = null;
  const box = (index: number): Box => {
    frame ??= restFrame(compileScene({ layers: scene.layers.map((layer) => ({ ...layer, tracks: {} })) }));
    return boundsAt(frame, index);
  };
  return { box, centre: (index) => centreOf(box(index)) };
}

function levelTest(scene: Scene, { layer, axis }: Extract<PickTerm, { by: 'level' }>, places: Places): Test {
  const model = scene.layers.findIndex(({ id }) => id === layer);
  if (model < 0) return none;
  return (_, index) => {
    const box = places.box(model);
    const { x, y } = places.centre(index);
    return axis === 'row' ? y >= box.top && y <= box.bottom : x >= box.left && x <= box.right;
  };
}

function termTest(scene: Scene, term: PickTerm, places: Places, passed: ReadonlySet<string>): Test {
  switch (term.by) {
    case 'layers': {
      const wanted = new Set(term.layers);
      return ({ id }) => wanted.has(id);
    }
    case 'rule':
      return ruleTest(term);
    case 'group':
      return groupTest(scene, term.group);
    case 'region':
      return (_, index) => {
        const { x, y } = places.centre(index);
        const [across, down] = [x / scene.width, y / scene.height];
        return across >= term.left && across <= term.right && down >= term.top && down <= term.bottom;
      };
    case 'level':
      return levelTest(scene, term, places);
    case 'state':
      return ({ tracks }) => Object.keys(tracks).length > 0 === (term.state === 'keys');
    case 'made':
      return ({ tracks }) => Object.values(tracks).some((keys) => keys.some(({ by }) => by?.run === term.run));
    case 'data':
      return dataTest(term);
    case 'saved': {
      const saved = scene.picks?.find(({ id }) => id === term.pick);
      if (!saved || passed.has(saved.id)) return none;
      return pickTest(scene, saved.pick, places, new Set([...passed, saved.id]));
    }
  }
}

/** A rule without conditions, which has no say among others. */
export function saysNothing(term: PickTerm): boolean {
  return term.by === 'rule' && term.tag === undefined && term.name === undefined && term.kind === undefined;
}

/** Sets of conditions of which a layer is to meet one whole; conditions that say nothing are left out. */
export function alternativesOf({ how, terms }: Extract<Pick, { by: 'joined' }>): JoinedTerm[][] {
  const sets: JoinedTerm[][] = [];
  let isNext = true;
  for (const term of terms) {
    isNext ||= how === 'any' || term.or === true;
    if (saysNothing(term.is)) continue;
    if (isNext) sets.push([term]);
    else sets[sets.length - 1].push(term);
    isNext = false;
  }
  return sets;
}

function pickTest(scene: Scene, pick: Pick, places: Places, passed: ReadonlySet<string>): Test {
  if (pick.by !== 'joined') return termTest(scene, pick, places, passed);
  const tests = alternativesOf(pick).map((terms) =>
    terms.map(({ not, is }): Test => {
      const test = termTest(scene, is, places, passed);
      return not === true ? (layer, index) => !test(layer, index) : test;
    }),
  );
  return (layer, index) => tests.some((all) => all.every((test) => test(layer, index)));
}

/**
 * Indices of the layers that a pick catches, from back to front. A rule without conditions catches none, and so does
 * a saved pick that is gone or that leads back to itself.
 */
export function pickLayers(scene: Scene, pick: Pick): number[] {
  const test = pickTest(scene, pick, placesIn(scene), new Set());
  return scene.layers.map((_, index) => index).filter((index) => test(scene.layers[index], index));
}

/** The terms of a pick, one by one. */
export function termsOf(pick: Pick): readonly PickTerm[] {
  return pick.by === 'joined' ? pick.terms.map(({ is }) => is) : [pick];
}
