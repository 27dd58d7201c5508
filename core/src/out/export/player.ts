/**
 * What plays an exported page: it fits the frame into the window, and gives it play, pause and a scrubber. It is written
 * into the page as it stands, so it is plain JavaScript without imports. With `?controls=off` in the address, or
 * `data-controls="off"` on the page's root, the controls are left out. Where the reader asked for less motion, the last frame
 * is shown with a play button.
 */
export const PLAYER = `
const frame = document.querySelector('.frame');
const { width, height, length, step } = Object.fromEntries(Object.entries(frame.dataset).map(([name, value]) => [name, Number(value)]));
const fit = () => {
  const scale = Math.min(innerWidth / width, innerHeight / height);
  frame.style.transform = 'translate(' + (innerWidth - width * scale) / 2 + 'px,' + (innerHeight - height * scale) / 2 + 'px) scale(' + scale + ')';
};
addEventListener('resize', fit);
fit();
const animations = document.getAnimations();
const last = Math.max(0, length - step);
let time = 0, isPlaying = false, began = 0;
const show = (at) => {
  time = Math.min(last, Math.max(0, at));
  for (const animation of animations) animation.currentTime = time;
  paint();
};
const play = () => {
  if (time >= last) time = 0;
  isPlaying = true;
  began = performance.now() - time;
  for (const animation of animations) { animation.currentTime = time; animation.play(); }
  requestAnimationFrame(tick);
};
const pause = () => {
  isPlaying = false;
  for (const animation of animations) animation.pause();
  show(Math.round(time / step) * step);
};
const tick = (now) => {
  if (!isPlaying) return;
  time = now - began;
  if (time >= length) { began += length; time = Math.max(0, time - length); for (const animation of animations) animation.currentTime = time; }
  paint();
  requestAnimationFrame(tick);
};
const sounds = [...document.querySelectorAll('audio')];
const hear = () => {
  for (const sound of sounds) {
    const { from, in: begins, out: ends, gain } = Object.fromEntries(Object.entries(sound.dataset).map(([name, value]) => [name, Number(value)]));
    const at = time / 1000;
    const within = at - begins + from;
    sound.volume = gain;
    if (!isPlaying || at < begins || at >= ends) { if (!sound.paused) sound.pause(); continue; }
    if (sound.paused || Math.abs(sound.currentTime - within) > 0.15) {
      sound.currentTime = within;
      sound.play().catch(() => undefined);
    }
  }
};
const clips = [...document.querySelectorAll('video')];
const showClip = (clip) => {
  const { from, length, in: begins, out: ends, pace, loops } = Object.fromEntries(Object.entries(clip.dataset).map(([name, value]) => [name, Number(value)]));
  const at = time / 1000;
  const passed = Math.max(0, from + (at - begins) * pace);
  const within = loops ? passed % length : Math.min(length - 0.001, passed);
  const runs = isPlaying && pace > 0 && at >= begins && at < ends && (loops || passed < length);
  if (!runs) {
    if (!clip.paused) clip.pause();
    if (Math.abs(clip.currentTime - within) > 0.001) clip.currentTime = within;
    return;
  }
  clip.playbackRate = Math.min(16, Math.max(0.0625, pace));
  if (clip.paused || Math.abs(clip.currentTime - within) > 0.12 * Math.max(1, pace)) {
    clip.currentTime = within;
    clip.play().catch(() => undefined);
  }
};
const controls = document.querySelector('.controls');
const [button, slider, clock] = controls.children;
const paint = () => {
  hear();
  clips.forEach(showClip);
  slider.value = time;
  clock.textContent = (time / 1000).toFixed(2) + ' s';
  button.textContent = isPlaying ? 'Pause' : 'Play';
};
slider.max = last;
slider.step = step;
button.addEventListener('click', () => (isPlaying ? pause() : play()) || paint());
slider.addEventListener('input', () => { if (isPlaying) pause(); show(Number(slider.value)); });
addEventListener('keydown', (event) => {
  if (event.key !== ' ' || event.target === button) return;
  event.preventDefault();
  button.click();
});
const isOff = new URLSearchParams(location.search).get('controls') === 'off' || document.documentElement.dataset.controls === 'off';
const isStill = matchMedia('(prefers-reduced-motion: reduce)').matches;
controls.hidden = isOff && !isStill;
for (const animation of animations) animation.pause();
if (isStill) show(last);
else play();
globalThis.wexikine = { play, pause, show: (at) => { pause(); show(at); } };
`;
