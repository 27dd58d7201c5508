/// <reference lib="webworker" />
import { ALL_FORMATS, Input, UrlSource, VideoSampleSink, type VideoSample } from 'mediabunny';
import type { ClipAnswer, ClipRequest } from './clip-messages';

/** Frames that are so much later than the one at hand are looked up anew rather than decoded one after the other, seconds. */
const NEAR = 2;

/** A moving picture that is being decoded. */
interface Playing {
  readonly sink: Promise<VideoSampleSink>;
  /** What is wanted of it now; what was wanted before no longer is. */
  wanted: ClipRequest | null;
  isBusy: boolean;
  /** Frames in their order, from where it was asked for last. */
  frames: AsyncGenerator<VideoSample, void, unknown> | null;
  /** When the frame that came last from them is shown. */
  reached: number;
  isAtEnd: boolean;
}

const clips = new Map<string, Playing>();

async function open(url: string): Promise<VideoSampleSink> {
  const source = new UrlSource(new URL(url, location.origin).href);
  const track = await new Input({ formats: ALL_FORMATS, source }).getPrimaryVideoTrack();
  if (!track || !(await track.canDecode())) throw new Error('This browser cannot decode the moving picture.');
  return new VideoSampleSink(track);
}

function give(answer: ClipAnswer, handed: Transferable[] = []): void {
  postMessage(answer, handed);
}

/** A frame no longer than it is needed, upright. */
function bitmapOf(sample: VideoSample, longest: number): ImageBitmap {
  const { displayWidth, displayHeight } = sample;
  const share = Math.min(1, longest / Math.max(displayWidth, displayHeight));
  const [width, height] = [displayWidth, displayHeight].map((side) => Math.max(1, Math.round(side * share)));
  const canvas = new OffscreenCanvas(width, height);
  sample.draw(canvas.getContext('2d') as OffscreenCanvasRenderingContext2D, 0, 0, width, height);
  return canvas.transferToImageBitmap();
}

function send(address: string, sample: VideoSample, longest: number, start = sample.timestamp): void {
  const bitmap = bitmapOf(sample, longest);
  give({ address, start, end: sample.timestamp + sample.duration, longest, bitmap }, [bitmap]);
}

/** Goes to a time: the frame that is shown then is given, and those behind it come next. */
async function goTo(clip: Playing, sink: VideoSampleSink, { address, at, longest }: ClipRequest): Promise<void> {
  await clip.frames?.return();
  const sample = await sink.getSample(at);
  // Before the first frame, that one stands.
  clip.frames = sink.samples(sample?.timestamp ?? 0);
  clip.isAtEnd = false;
  const first = sample ?? (await clip.frames.next()).value ?? null;
  if (!first) return;
  send(address, first, longest, sample ? first.timestamp : 0);
  clip.reached = first.timestamp;
  first.close();
}

/** Decodes on until so much is there as is wanted, or until something else is. */
async function goOn(clip: Playing, asked: ClipRequest): Promise<void> {
  const { address, at, ahead, longest } = asked;
  while (clip.wanted === asked && clip.frames && !clip.isAtEnd && clip.reached < at + ahead) {
    const { value: sample } = await clip.frames.next();
    if (!sample) {
      clip.isAtEnd = true;
      give({ address, last: clip.reached });
      return;
    }
    if (sample.timestamp > clip.reached) {
      clip.reached = sample.timestamp;
      if (sample.timestamp + sample.duration > at) send(address, sample, longest);
    }
    sample.close();
  }
}

async function serve(clip: Playing): Promise<void> {
  const sink = await clip.sink;
  let served: ClipRequest | null = null;
  while (clip.wanted && clip.wanted !== served) {
    const asked: ClipRequest = clip.wanted;
    const isNear = clip.frames !== null && asked.at >= clip.reached && asked.at - clip.reached < NEAR;
    const isOther = served !== null && asked.longest !== served.longest;
    if (!isNear || isOther || clip.isAtEnd) await goTo(clip, sink, asked);
    await goOn(clip, asked);
    served = asked;
  }
}

addEventListener('message', ({ data }: MessageEvent<ClipRequest>) => {
  const { address } = data;
  const known = clips.get(address);
  const clip: Playing = known ?? {
    sink: open(data.url),
    wanted: null,
    isBusy: false,
    frames: null,
    reached: -1,
    isAtEnd: false,
  };
  clips.set(address, clip);
  clip.wanted = data;
  if (clip.isBusy) return;
  clip.isBusy = true;
  serve(clip)
    .catch((error: unknown) => give({ address, problem: error instanceof Error ? error.message : String(error) }))
    .finally(() => (clip.isBusy = false));
});
