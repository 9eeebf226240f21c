/** Rings in the page, and outside it where that was allowed. */

/** A soft bell: its pitch [Hz], how long [s] and how loud. [practice] */
const PITCH_HZ = 660;
const LONG_S = 1.2;
const LOUD = 0.25;

function bell() {
  if (typeof AudioContext === 'undefined') return;
  const context = new AudioContext();
  const tone = context.createOscillator();
  const loudness = context.createGain();
  tone.frequency.value = PITCH_HZ;
  loudness.gain.setValueAtTime(LOUD, context.currentTime);
  loudness.gain.exponentialRampToValueAtTime(0.001, context.currentTime + LONG_S);
  tone.connect(loudness).connect(context.destination);
  tone.start();
  tone.stop(context.currentTime + LONG_S);
  tone.onended = () => void context.close();
}

/** Whether the browser can be asked to ring outside the page. */
export const mayAsk = () =>
  typeof Notification !== 'undefined' && Notification.permission === 'default';

export const askToRing = () => Notification.requestPermission();

export function ring(what: string) {
  bell();
  if (typeof Notification !== 'undefined' && Notification.permission === 'granted') {
    new Notification(what, { tag: what });
  }
}
