// A text whose words of the trade can be asked about: pressed, each shows its picture and what it means.
import { Popover } from '@mui/material';
import { Fragment, useId, useState } from 'react';
import { ActLink } from '../kit/Act';
import { Press } from '../kit/Press';
import { anchorOf, WORDS } from '../words';
import { WordPicture } from './WordPicture';

/** Words that a newcomer may not know, as they stand in texts; the longer before the shorter. */
const ASKED = [
  'mould line',
  'setback',
  'K-factor',
  'leg outside and inside',
  'long point',
  'grip allowance',
  'bar offcut',
  'relief',
  'kerf',
];
const FOUND = new RegExp(`\\b(${ASKED.join('|')})\\b`, 'i');

export function Terms({ text }: { text: string }) {
  return text
    .split(FOUND)
    .map((part, at) => <Fragment key={at}>{at % 2 === 1 ? <Term word={part} /> : part}</Fragment>);
}

function Term({ word }: { word: string }) {
  const [at, setAt] = useState<HTMLElement | null>(null);
  const title = useId();
  const own = WORDS.find((one) => one.word.toLowerCase() === word.toLowerCase());
  if (!own) return word;
  return (
    <>
      <Press
        className="term"
        aria-label={`What is ${word}?`}
        aria-haspopup="dialog"
        aria-expanded={at !== null}
        onClick={(event) => {
          event.stopPropagation();
          setAt(event.currentTarget);
        }}
      >
        {word}
      </Press>
      <Popover
        open={at !== null}
        anchorEl={at}
        onClose={() => setAt(null)}
        onClick={(event) => event.stopPropagation()}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { role: 'dialog', 'aria-labelledby': title, className: 'termcard' } }}
      >
        <h3 id={title}>{own.word}</h3>
        {own.means}
        <WordPicture word={own.word} />
        <ActLink to={`/words#${anchorOf(own.word)}`}>All words</ActLink>
      </Popover>
    </>
  );
}
