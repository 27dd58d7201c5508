import { MOST_FILE_BYTES, ticksFromSeconds } from '@wexikine/core';
import { ALL_FORMATS, BlobSource, Input } from 'mediabunny';
import { keepFile } from '../../files/keep-file';
import type { BroughtFile } from './messages';

/** Longest side of a clip, px, and how long it may be, seconds. */
const LONGEST = 8_192;
const MOST_SECONDS = 6 * 3_600;

/** Keeps a moving picture that this browser can decode. */
export async function readClip(file: File, name: string): Promise<BroughtFile> {
  const problem = (text: string): BroughtFile => ({ type: 'problem', name, problem: text });
  if (file.size > MOST_FILE_BYTES)
    return problem(`it is larger than ${MOST_FILE_BYTES / 1024 / 1024} MB. Make it shorter, or pack it anew`);
  const input = new Input({ formats: ALL_FORMATS, source: new BlobSource(file) });
  try {
    const track = await input.getPrimaryVideoTrack();
    if (!track) return problem('there is no moving picture in it');
    if (!(await track.canDecode()))
      return problem('this browser cannot decode it. Pack it anew as WebM with VP9, or MP4 with H.264');
    const [width, height, seconds] = [track.displayWidth, track.displayHeight, await input.computeDuration([track])];
    if (!(width > 0 && height > 0 && seconds > 0)) return problem('it is damaged');
    if (Math.max(width, height) > LONGEST) return problem(`it is more than ${LONGEST} px long`);
    if (seconds > MOST_SECONDS) return problem('it is longer than six hours');
    const href = await keepFile(file, name, { width, height, seconds: Math.round(seconds * 1000) / 1000 });
    return { type: 'clip', name, href, width, height, length: Math.max(1, ticksFromSeconds(seconds)) };
  } finally {
    input.dispose();
  }
}
