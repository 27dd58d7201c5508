import {
  CHANNELS,
  compileScene,
  describeEntryProblem,
  frameAt,
  maybeChannel,
  CHANNEL_COUNT,
  nearestFrame,
  parseTimeEntry,
  secondsFromTicks,
  writeTable,
  type Channel,
  type Scene,
  type Ticks,
} from '@wexikine/core';
import { Failure } from '../failure';
import { readScene } from '../files';

/** What the command line gives to `sample`. */
export interface SampleOptions {
  readonly at: string;
  readonly layers?: string;
  readonly channels?: string;
  readonly format: string;
}

function readTimes(text: string, { rate }: Scene): Ticks[] {
  return text.split(',').map((part) => {
    const result = parseTimeEntry(part, rate);
    if (!result.ok) throw new Failure(`--at “${part}”: ${describeEntryProblem(result.problem, rate)}`);
    return result.entry.ticks;
  });
}

function readChannels(text: string | undefined, scene: Scene): readonly Channel[] {
  if (text === undefined) {
    const driven = scene.runs.flatMap(({ rig }) => rig?.channels ?? []);
    const keyed = new Set<string>([
      ...scene.layers.flatMap(({ tracks, rest }) => [...Object.keys(tracks), ...Object.keys(rest)]),
      ...driven,
    ]);
    return CHANNELS.filter(({ id }) => keyed.has(id));
  }
  return text.split(',').map((name) => {
    const channel = maybeChannel(name.trim());
    if (channel) return channel;
    throw new Failure(
      `--channels “${name}”: There is no such channel. There are ${CHANNELS.map(({ id }) => id).join(', ')}.`,
    );
  });
}

function readLayers(text: string | undefined, scene: Scene): number[] {
  const all = scene.layers.map((_, index) => index);
  if (text === undefined) return all;
  const wanted = text.split(',').map((name) => name.trim().toLowerCase());
  const found = all.filter((index) => {
    const { id, name } = scene.layers[index];
    return wanted.includes(id.toLowerCase()) || wanted.includes(name.toLowerCase());
  });
  if (found.length === 0) throw new Failure(`--layers “${text}”: The scene has no such layer. Give names or ids.`);
  return found;
}

interface SampleRow {
  readonly seconds: number;
  readonly frame: number;
  readonly layer: string;
  readonly name: string;
  readonly values: Readonly<Record<string, number>>;
}

function sampleRows(scene: Scene, options: SampleOptions): { channels: readonly Channel[]; rows: SampleRow[] } {
  const channels = readChannels(options.channels, scene);
  const layers = readLayers(options.layers, scene);
  const compiled = compileScene(scene);
  const rows = readTimes(options.at, scene).flatMap((time) => {
    const { values } = frameAt(compiled, time);
    return layers.map((index): SampleRow => {
      const read = channels.map(({ id, slot }) => [id, values[index * CHANNEL_COUNT + slot]]);
      const { id, name } = scene.layers[index];
      return {
        seconds: secondsFromTicks(time),
        frame: nearestFrame(time, scene.rate),
        layer: id,
        name,
        values: Object.fromEntries(read),
      };
    });
  });
  return { channels, rows };
}

/** `wexikine sample`: channel values of layers at times, as CSV or JSON. */
export function sample(path: string, options: SampleOptions): string {
  const { channels, rows } = sampleRows(readScene(path), options);
  if (options.format === 'json') return `${JSON.stringify(rows, null, 1)}\n`;
  if (options.format !== 'csv') throw new Failure(`--format “${options.format}”: Give csv or json.`);
  const head = ['seconds', 'frame', 'layer', 'name', ...channels.map(({ id }) => id)];
  const lines = rows.map(({ seconds, frame, layer, name, values }) =>
    [seconds, frame, layer, name, ...channels.map(({ id }) => values[id])].map(String),
  );
  return writeTable({ columns: head, rows: lines }).replaceAll('\r\n', '\n');
}
