import './app.css';
import { chosenLanguage, speak } from './language/language';
import { textsOf } from './language/catalogues';

/** The language first: screens and routes name themselves in it as soon as they are loaded. */
async function start() {
  const language = chosenLanguage();
  speak(language, await textsOf(language));
  const { draw } = await import('./draw');
  draw(document.getElementById('root')!);
}

void start();
