export {
  CHANNELS,
  CHANNEL_COUNT,
  CHANNEL_IDS,
  channelIdSchema,
  channelOf,
  maybeChannel,
  clampToChannel,
  formatChannelValue,
  type Channel,
  type ChannelId,
  type ChannelUnit,
  type ChannelFamily,
} from './registry';
