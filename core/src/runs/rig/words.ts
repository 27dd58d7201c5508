import { channelOf, type ChannelId } from '../../basics/channel';
import { pickWords } from '../pick';
import { rigChannels } from '../../formulas/rig';
import type { DialSetting, RigRecipe } from '../../scene/recipe';
import { field, orderWords, plain, readableTime, verbOf, type SentenceFacts, type SentencePart } from '../sentence';
import { variationWords } from '../run';

const AXES = /\.[xy]$/;

/** "position, scale and rotation": channels, both axes as one where both are there. */
export function channelsWords(channels: readonly ChannelId[]): string {
  const words = channels.map((id) => {
    const other = id.endsWith('.x') ? id.replace(AXES, '.y') : id.replace(AXES, '.x');
    const isPaired = AXES.test(id) && channels.includes(other as ChannelId);
    return isPaired ? id.replace(AXES, '') : channelOf(id).label;
  });
  const once = [...new Set(words)];
  return once.length < 2 ? (once[0] ?? 'nothing') : `${once.slice(0, -1).join(', ')} and ${once[once.length - 1]}`;
}

/** "3 /s to 6 /s along the order", "keyed, 2 keys". */
export function dialWords(setting: DialSetting): string {
  if (setting.by !== 'keys') return variationWords(setting);
  return `keyed, ${setting.keys.length === 1 ? 'one key' : `${setting.keys.length} keys`}`;
}

function isNothing(time: string): boolean {
  return /^[+-]?0+(\.0+)?[a-z]*$/.test(time.trim());
}

/** The sentence of rigging. */
export function rigParts(recipe: RigRecipe, { shelf, count, scene, presetName }: SentenceFacts): SentencePart[] {
  const item = shelf.items.get(recipe.rig.id);
  const rig = item?.kind === 'rig' ? item : null;
  const channels = recipe.channels ?? (rig ? rigChannels(rig.body) : []);
  const dials = rig?.body.dials ?? [];
  const roles = rig?.body.roles ?? [];
  const nameOf = (id: string | undefined): string =>
    scene.layers.find((layer) => layer.id === id)?.name ?? 'no layer yet';
  return [
    field('operation', verbOf('rig')),
    plain(' '),
    field('pick', pickWords(recipe.pick, count, scene)),
    plain(' with '),
    field('rig', rig?.name ?? presetName ?? 'a rig'),
    plain(', on '),
    field('channels', channels.length > 0 ? channelsWords(channels) : 'its channels'),
    ...roles.flatMap(({ name }) => [plain(`, ${name} being `), field(`role:${name}`, nameOf(recipe.roles?.[name]))]),
    plain(', '),
    field('order', orderWords(recipe.order)),
    ...(isNothing(recipe.later)
      ? [plain(', '), field('later', 'all at once')]
      : [plain(', each '), field('later', readableTime(recipe.later)), plain(' later')]),
    ...dials
      .filter(({ name }) => recipe.parameters[name] !== undefined)
      .flatMap(({ name, label }) => [
        plain(`, ${label.charAt(0).toLowerCase()}${label.slice(1)} `),
        field(`parameter:${name}`, dialWords(recipe.parameters[name])),
      ]),
    plain('.'),
  ];
}
