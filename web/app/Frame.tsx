import { useEffect } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useShortcut } from './useShortcut.ts';
import { Navigate, NavLink, Outlet, useLocation } from 'react-router';
import { useSessionQuery, useSignOutMutation } from './session.ts';
import { useLeave } from './useLeave.ts';
import { problemFrom } from './api.ts';
import './frame.css';
import { useUnit } from './lengths.ts';
import { OutboxStrip } from './OutboxStrip.tsx';
import { schemeChosen, shortcutsToggled, unitChosen } from './preferences.ts';
import { ProblemNote } from './ProblemNote.tsx';
import { Shortcuts } from './Shortcuts.tsx';
import { useAppDispatch, useAppSelector } from './store.ts';

const PLACES = [
  { to: '/', name: 'Today' },
  { to: '/engines', name: 'Engines' },
  { to: '/rechecks', name: 'Rechecks' },
  { to: '/usage', name: 'Usage' },
  { to: '/sheets', name: 'Spec sheets' },
  { to: '/instruments', name: 'Instruments' },
  { to: '/drawer', name: 'Drawer' },
  { to: '/shop', name: 'Shop' },
] as const;

/** The drawing sheet every page stands on: a hairline frame with its divisions, and the title block at the foot. */
export function Frame() {
  const { data: session, error, refetch } = useSessionQuery();
  const location = useLocation();
  const dispatch = useAppDispatch();
  const shown = useAppSelector((state) => state.preferences.shortcutsShown);
  useShortcut('*', (event) => void (event.key === '?' && dispatch(shortcutsToggled())));
  useHotkeys('escape', () => void (shown && dispatch(shortcutsToggled())), [shown]);
  useEffect(() => {
    document.querySelector('#sheet')?.scrollTo(0, 0);
  }, [location.pathname]);
  if (error && problemFrom(error)?.code === 'unauthenticated')
    return <Navigate to="/sign-in" state={{ from: location.pathname + location.search }} replace />;
  // a server that cannot say just now who is signed in takes nobody's page away
  if (error && !session) return <ProblemNote error={error} onRetry={refetch} />;
  if (!session) return null;
  return (
    <div className="sheet">
      <div className="sheet-edge">
        <i className="sheet-ticks sheet-ticks-top" aria-hidden />
        <i className="sheet-ticks sheet-ticks-left" aria-hidden />
        <i className="sheet-ticks sheet-ticks-right" aria-hidden />
        <main id="sheet">
          <Outlet />
        </main>
        {shown && <Shortcuts />}
        <OutboxStrip />
        <TitleBlock name={session.person.name} role={session.person.role} shop={session.shop.name} />
      </div>
    </div>
  );
}

interface TitleBlockProps {
  readonly name: string;
  readonly role: string;
  readonly shop: string;
}

/** The title block at the foot: what this is, where one can go, in which unit, and who is at the bench. */
function TitleBlock({ name, role, shop }: TitleBlockProps) {
  return (
    <footer className="title-block">
      <div className="title-block-name">
        <b>Zero Lash</b>
        <small>{shop}</small>
      </div>
      <nav aria-label="Pages">
        {PLACES.map(({ to, name: place }) => (
          <NavLink key={to} to={to} end={to === '/'} className="zl-place">
            {place}
          </NavLink>
        ))}
      </nav>
      <DeviceChoices />
      <SignedIn name={name} role={role} />
    </footer>
  );
}

function DeviceChoices() {
  const unit = useUnit();
  const dispatch = useAppDispatch();
  const scheme = useAppSelector((state) => state.preferences.scheme);
  const dark = scheme === 'dark' || (scheme === null && matchMedia('(prefers-color-scheme: dark)').matches);
  const otherUnit = unit === 'mm' ? 'thou' : 'mm';
  useShortcut('u', () => void dispatch(unitChosen(otherUnit)));
  return (
    <div className="title-block-cell">
      <button
        type="button"
        onClick={() => dispatch(unitChosen(otherUnit))}
        aria-label={`Reading in ${unit}; change to ${otherUnit}`}
      >
        {unit}
      </button>
      <button type="button" onClick={() => dispatch(schemeChosen(dark ? 'light' : 'dark'))}>
        {dark ? 'light' : 'dark'}
      </button>
      <button type="button" aria-label="Keyboard shortcuts" onClick={() => dispatch(shortcutsToggled())}>
        ?
      </button>
    </div>
  );
}

function SignedIn({ name, role }: { readonly name: string; readonly role: string }) {
  const [signOut] = useSignOutMutation();
  const { leave, leaving, unsent, stillIn } = useLeave(signOut);
  return (
    <div className="title-block-cell title-block-way-out">
      <div className="title-block-person">
        <b>{name}</b>
        <small role={stillIn ? 'alert' : undefined}>{stillIn ? 'still signed in: no answer' : role}</small>
      </div>
      <button type="button" disabled={leaving} onClick={() => void leave()}>
        {leaving ? 'Sending…' : unsent ? 'Leave it unsent' : 'Sign out'}
      </button>
    </div>
  );
}
