import type { FitChange } from './fitted';
import type { Obstacle } from './obstacle';

/** What keeps a channel out of a radio, and what the person could do. */
export const OBSTACLE_WORDS: Record<Obstacle, { because: string; todo: string }> = {
  slot: {
    because: 'its slot is not in this radio',
    todo: 'Move it to a slot that this radio has.',
  },
  'home band': {
    because: 'a home channel lies in its own band',
    todo: 'Put it into the home slot of its band, or among the other channels.',
  },
  'receive range': {
    because: 'this radio does not tune there',
    todo: 'Keep it for another radio, or take it out.',
  },
  'receive step': {
    because: 'receive lies between its steps',
    todo: 'Take the nearest frequency on its steps, which Check has.',
  },
  'transmit step': {
    because: 'transmit lies between its steps',
    todo: 'Take the nearest transmit frequency on its steps, or make it listen only.',
  },
  mode: {
    because: 'this radio lacks the mode',
    todo: 'Choose a mode that it has, if the other end has that too.',
  },
  'colour code': {
    because: 'DMR needs a colour code and a time slot',
    todo: 'Enter both in the column Access, such as CC1 TS2.',
  },
  access: {
    because: 'this radio lacks the tone or code',
    todo: 'Choose one that it has, or leave it open and only listen.',
  },
};

/** What the person could do where a radio holds something otherwise than the plan says. */
export const CHANGE_TODO: Record<FitChange['what'], string> = {
  name: 'Write a name for this radio by hand, or change the abbreviations.',
  power: 'Choose one of its powers, or leave it so.',
  tx: 'Choose a transmit frequency in its bands, or leave it so.',
  access: 'Give both ways the same, or leave it so.',
  mode: 'Choose a mode that it has, or leave it so.',
  digital: 'Put the talkgroups and lists that matter first, or leave it so.',
  'scan list': 'Put the scan lists that matter first, or leave it so.',
  shift: 'It sends there all the same; or set the shift that it stores for the band.',
};
