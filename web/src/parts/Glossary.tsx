// The glossary: the words of the trade as Steelk uses them, with a picture where one says more.
import { useEffect } from 'react';
import { Link, useLocation } from 'react-router';
import { Top } from './Top';
import { WordPicture } from './WordPicture';
import { useTitle } from '../kit/useTitle';
import { anchorOf, WORDS } from '../words';

export default function Glossary() {
  useTitle('Words');
  const { hash } = useLocation();
  useEffect(() => {
    // The page is fetched when it is first opened: the browser has looked for the place before it was there.
    if (hash) document.getElementById(hash.slice(1))?.scrollIntoView({ block: 'center' });
  }, [hash]);
  return (
    <>
      <Top>
        <Link to="/">Rack</Link>
      </Top>
      <main className="page" tabIndex={0}>
        <h1>Words</h1>
        <p className="soft">One word, one thing: what the words of the trade mean on these screens and papers.</p>
        <div className="glossary">
          {WORDS.map(({ word, means }) => (
            <article key={word} id={anchorOf(word)} aria-label={word}>
              <h2>{word}</h2>
              {means}
              <WordPicture word={word} />
            </article>
          ))}
        </div>
      </main>
    </>
  );
}
