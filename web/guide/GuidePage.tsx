import { Button } from '@chakra-ui/react';
import { Link, useNavigate } from 'react-router';
import type { ReactNode } from 'react';
import { Page } from '../app/Page.tsx';
import { guidePutAway } from '../app/preferences.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import './guide.css';

/** The first day, in the order one meets it: what is done first, and what is likely to go wrong. */
export default function GuidePage() {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const away = useAppSelector((state) => state.preferences.guidePutAway);
  return (
    <Page
      title="Your first day"
      under="Eight steps, from an empty bench to a signed engine"
      actions={
        !away && (
          <Button
            onClick={() => {
              dispatch(guidePutAway());
              void navigate('/');
            }}
          >
            Take it off Today
          </Button>
        )
      }
    >
      <ol className="guide">
        <Step title="Write down what you measure with">
          Under <Link to="/instruments">Instruments</Link>: each blade of the set, with its real thickness
          where a micrometer has said it. What no blade you own can decide is said before anything is opened.
        </Step>
        <Step title="Write the spec sheet from the book">
          Under <Link to="/sheets">Spec sheets</Link>: the limits as the manual prints them, and where they
          stand in it. A second person reads the draft against the book and publishes it. Nothing is judged
          without limits from a named source.
        </Step>
        <Step title="Add the engine, and open a build as what it is">
          Under <Link to="/engines">Engines</Link>. Most often it is a valve check: cover off, feel every
          point, set what is out, cover on. A check may become a rebuild later; a rebuild never has to be
          begun again.
        </Step>
        <Step title="Make it safe">
          Cold and unable to start: ignition, fuel and battery isolated, hands clear of belts and fans. The
          build asks for each once, and the maker’s manual governs.
        </Step>
        <Step title="Turn to the stop, then tap In position">
          The page says which mark, which way and which of the two turns. If you go past it, go back beyond
          the mark and come up to it again in the running direction.
        </Step>
        <Step title="Feel, and tap">
          Tap the thickest blade that goes in, then the thinnest that will not: those two are the gap. Or type
          them: <code>0.13 0.15</code>. It goes on to the next point by itself. If a figure looks like a slip
          of unit or decimal point, the page asks; answer it and go on.
        </Step>
        <Step title="Set what is out, and measure it again">
          The page says which way and how far to turn a screw, or which shim to fit and where one lies.
          Tightening the lock nut moves the gap: it counts only once it has been measured again.
        </Step>
        <Step title="Two turns by hand, then sign">
          Turn twice by hand; at any resistance stop, go back and find out. What was touched is measured once
          more, what came off is counted back, and a lead signs. The next check is planned with the signature.
        </Step>
      </ol>
      <p>
        No network? Go on: everything done at the bench is kept on the device and sent later. A slip is not
        lost and not hidden: measure again, or strike a reading out with a reason. <kbd>?</kbd> lists the
        keys.
      </p>
    </Page>
  );
}

function Step({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <li>
      <h2>{title}</h2>
      <p>{children}</p>
    </li>
  );
}
